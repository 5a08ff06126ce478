export default async function teardown() {
  await globalThis.emeryTestDatabase?.close();
}
