// What page and explore.js share: Debian's Chromium, which may ask nothing of any network.
const { pathToFileURL } = require('url')
const { chromium } = require('playwright-core')

/// Starts the browser for `act(open)`; `open(file, options, look)` opens a page of files in it and gives what that asked
/// for beside itself and what it complained of.
async function browsing(act) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking',
      '--disable-component-update', '--disable-sync', '--disable-quic']
  })
  try {
    await act(async (file, options, look) => {
      const wrong = []
      const url = pathToFileURL(file).href
      const context = await browser.newContext(options)
      const page = await context.newPage()
      page.on('request', (r) => {
        if (r.url() !== url && !r.url().startsWith('data:'))
          wrong.push('asked for ' + r.url().slice(0, 200))
      })
      page.on('console', (m) => { if (m.type() === 'error') wrong.push('complained: ' + m.text()) })
      page.on('pageerror', (e) => wrong.push('broke: ' + e.message))
      page.on('dialog', (d) => { wrong.push('asked: ' + d.message()); d.dismiss() })
      await page.goto(url)
      await look(page)
      await context.close()
      return wrong
    })
  } finally {
    await browser.close()
  }
}

module.exports = { browsing }
