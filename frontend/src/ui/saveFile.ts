/** Give the user a file. */
export function saveFile(name: string, content: unknown) {
  const url = URL.createObjectURL(new Blob([JSON.stringify(content, null, 1)], { type: "application/json" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${name.toLowerCase().replace(/[^a-z0-9]+/g, "-") || "effect"}.json`;
  link.click();
  URL.revokeObjectURL(url);
}
