// Holds an unpacked data package against the Frictionless profiles and reads each table by its schema.
// Argument: the folder. Prints what is wrong; fails where anything is.
const { Package } = require('datapackage')

async function main(folder) {
  const wrong = []
  const loaded = await Package.load(folder + '/datapackage.json', { basePath: folder })
  if (!loaded.valid) wrong.push(...loaded.errors.map((e) => 'descriptor: ' + e.message))
  let rows = 0
  for (const resource of loaded.resources) {
    if (!resource.valid) wrong.push(...resource.errors.map((e) => resource.name + ': ' + e.message))
    if (!resource.tabular) continue
    try {
      rows += (await resource.read()).length
    } catch (error) {
      const all = error.multiple ? error.errors : [error]
      wrong.push(...all.slice(0, 5).map((e) => resource.name + ': ' + e.message))
    }
  }
  console.log(rows + ' rows')
  for (const words of wrong) console.log(words)
  process.exit(wrong.length > 0 ? 1 : 0)
}

main(process.argv[2]).catch((error) => {
  console.log(String(error))
  process.exit(1)
})
