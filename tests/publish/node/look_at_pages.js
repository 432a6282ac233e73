// Looks at pages as browsers show them: on wide, narrow and dark screens, with and without scripts. Prints what they
// ask for, complain of, spill over the side, or lack for who cannot see them (axe-core). Arguments: the files, after
// --texts where only their texts are new: colors, and what axe-core finds, are then looked at on the wide screen alone.
const fs = require('fs')
const { browsing } = require('./browser.js')

const axe = fs.readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8')
const screens = [
  { name: 'wide', viewport: { width: 1280, height: 800 } },
  { name: 'narrow', viewport: { width: 390, height: 800 } },
  { name: 'dark', viewport: { width: 1280, height: 800 }, colorScheme: 'dark' },
  { name: 'no script', viewport: { width: 1280, height: 800 }, javaScriptEnabled: false }
]

async function main(files) {
  const onlyTexts = files[0] === '--texts'
  if (onlyTexts) files.shift()
  let faults = 0
  const tell = (file, screen, words) => {
    ++faults
    console.log(file.split('/').pop() + ', ' + screen + ': ' + words)
  }
  await browsing(async (open) => {
   for (const file of files)
    for (const { name, ...options } of screens) {
      if (onlyTexts && name === 'dark') continue
      const wrong = await open(file, options, async (page) => {
        if (options.javaScriptEnabled === false) {
          if (await page.locator('#explore').isVisible()) tell(file, name, 'a panel that cannot work is shown')
          return
        }
        const spill = await page.evaluate('document.documentElement.scrollWidth - innerWidth')
        if (spill > 1) tell(file, name, spill + ' px wider than the screen')
        // The page to explore is the page and more.
        if (files.includes(file.replace(/\.html$/, '-explore.html')) || (onlyTexts && name !== 'wide')) return
        await page.evaluate(axe)
        const found = await page.evaluate('axe.run(document, {resultTypes: ["violations"]})')
        for (const v of found.violations)
          tell(file, name, v.id + ': ' + v.help + ' (' + v.nodes.length + ', ' + v.nodes[0].html.slice(0, 160) + ')')
      })
      for (const words of wrong) tell(file, name, words)
    }
  })
  process.exit(faults > 0 ? 1 : 0)
}

main(process.argv.slice(2)).catch((error) => {
  console.log(String(error))
  process.exit(1)
})
