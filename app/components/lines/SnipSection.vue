<template>
  <p class="quiet col-span-2 max-w-[640px]">
    A snip hides the part of a line beyond a crossing. The line itself stays whole: click a hidden part to bring it
    back, and move either line as you like, the snip follows the crossing.
  </p>
</template>
