import { launchBrowser } from './browser.mjs';
import { logIn } from './demo-shop.mjs';
const base='http://127.0.0.1:4170';
const who=process.env.WHO??'perla';
const call=await logIn(base,who);
const {browser,close}=await launchBrowser();
const page=await browser.newPage();
page.on('pageerror',e=>console.log('PAGEERROR',e.message));
page.on('console',m=>{if(m.type()==='error')console.log('CONSOLE',m.text())});
await page.setViewport({width:1280,height:800});
await page.goto(base,{waitUntil:'load'});
await page.waitForSelector('#login');
await page.type('#login',who);await page.type('#password','bench-417');await page.keyboard.press('Enter');
await page.waitForSelector('.topbar');
const wait=ms=>new Promise(r=>setTimeout(r,ms));
const shot=async(name,opts={})=>{await wait(opts.wait??600);await page.screenshot({path:`/tmp/pics/${name}.png`,fullPage:opts.full??false});console.log('shot',name)};
const click=async(text)=>{await page.evaluate(t=>{const e=[...document.querySelectorAll('button,a,label,summary')].filter(x=>x.offsetParent!==null).find(x=>x.innerText.trim().startsWith(t));if(!e)throw new Error('no '+t);e.click()},text);await wait(300)};
try{ const mod=await import(process.argv[2]); await mod.default({page,shot,call,base,click,wait,browser}); } finally { await close(); }
process.exit(0);
