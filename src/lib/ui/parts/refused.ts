/** What the server refused, by the path that the form uses. */
export function refusedFields(
  fields: readonly { path: string; message: string }[],
  prefix: string
): Record<string, string> {
  return Object.fromEntries(
    fields.map(({ path, message }) => [
      path.startsWith(prefix) ? path.slice(prefix.length) : path,
      `${message.charAt(0).toUpperCase()}${message.slice(1)}.`
    ])
  );
}
