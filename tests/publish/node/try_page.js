// Uses the page that can be explored as a reader does, with keys and clicks. Arguments: the file; what to try, as a
// JSON list of {height, setting, target, hours, tariff, low, high}, each of them optional. Prints a line of JSON for
// each: the figures that the page then shows. Fails where anything went wrong.
const { browsing } = require('./browser.js')

async function main(file, asked) {
  let wrong = []
  await browsing(async (open) => { wrong = await open(file, { viewport: { width: 1280, height: 900 } }, async (page) => {
    if (!(await page.locator('#explore').isVisible())) throw new Error('the panel is not shown')
    const type = async (name, value) => {
      await page.click('#x-' + name)
      await page.keyboard.press('Control+A')
      await page.keyboard.type(String(value))
      await page.keyboard.press('Tab')
    }
    for (const one of asked) {
      if (one.configuration) await page.selectOption('#x-configuration', { label: one.configuration })
      if (one.height) await page.selectOption('#x-height', { label: one.height })
      if (one.setting) await page.selectOption('#x-setting', { label: one.setting })
      if (one.target) await page.selectOption('#x-target', { label: one.target })
      if (one.hours) await type('hours', one.hours)
      for (let i = 0; i < (one.slide || 0); ++i) await page.locator('#x-slide').press('ArrowRight')
      if (one.low) await type('low', one.low)
      if (one.high) await type('high', one.high)
      if (one.tariff) await type('tariff', one.tariff)
      const shown = {}
      for (const name of ['hours', 'slide', 'low', 'high', 'tariff']) shown[name] = await page.inputValue('#x-' + name)
      for (const cell of await page.locator('#x-figures td').all())
        shown[(await cell.getAttribute('id')).slice('x-value-'.length)] = await cell.textContent()
      console.log(JSON.stringify(shown))
    }
    // The map: closer, moved, dragged, wide again; and what the pointer stands on.
    const picture = () => page.evaluate('document.getElementById("x-map").toDataURL()')
    const whole = await picture()
    await page.click('#x-in')
    const near = await picture()
    await page.locator('#x-map').press('ArrowUp')
    const moved = await picture()
    await page.click('#x-whole')
    const again = await picture()
    await page.locator('#x-map').hover({ position: { x: 30, y: 30 } })
    await page.mouse.wheel(0, -200)
    await page.waitForTimeout(50)
    const wheeled = await picture()
    const place = await page.textContent('#x-place')
    console.log(JSON.stringify({ zooms: near !== whole, moves: moved !== near, returns: again === whole,
      wheels: wheeled !== whole, place }))
  }) })
  for (const words of wrong) console.log(words)
  process.exit(wrong.length > 0 ? 1 : 0)
}

main(process.argv[2], JSON.parse(process.argv[3])).catch((error) => {
  console.log(String(error))
  process.exit(1)
})
