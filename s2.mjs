import { browser, page } from './shot.mjs'
await page.goto('http://127.0.0.1:4310/drawings/demo-radish-bunch'); await page.waitForTimeout(3000)
await page.keyboard.press('1'); await page.waitForTimeout(600); await page.screenshot({ path: '/tmp/p1.png' })
await page.keyboard.press('3'); await page.waitForTimeout(300)
await page.mouse.move(575, 480); await page.mouse.down(); await page.mouse.up(); await page.waitForTimeout(300)
await page.mouse.move(577, 400);await page.waitForTimeout(300)
await page.mouse.down(); await page.mouse.move(590,398,{steps:4}); await page.waitForTimeout(200);await page.screenshot({ path: '/tmp/p2.png' }); await page.mouse.up();
await page.keyboard.press('4'); await page.waitForTimeout(1500); await page.mouse.click(575,480); await page.waitForTimeout(500); await page.screenshot({ path: '/tmp/p3.png' })
await page.keyboard.press('5'); await page.waitForTimeout(1500); await page.screenshot({ path: '/tmp/p4.png' })
await page.keyboard.press('2'); await page.waitForTimeout(500);
// pen
await page.mouse.click(200,150); await page.mouse.move(260,300); await page.mouse.down(); await page.mouse.move(300,340,{steps:5}); await page.mouse.up(); await page.mouse.move(250,480,{steps:3}); await page.waitForTimeout(300); await page.screenshot({ path: '/tmp/p5.png' })
await page.keyboard.press('Enter'); await page.waitForTimeout(200)
await page.keyboard.press('e'); await page.waitForTimeout(100)
await page.mouse.move(780,150); await page.mouse.down(); for(let i=0;i<60;i++) await page.mouse.move(780+Math.sin(i/10)*60, 150+i*6); await page.mouse.up(); await page.waitForTimeout(400)
await page.keyboard.press('r'); await page.waitForTimeout(300); await page.screenshot({ path: '/tmp/p6.png' })
await browser.close()
