/** Give the user some content as a file. */
export function download(name: string, content: Blob) {
  const url = URL.createObjectURL(content);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Give the user a document as a JSON file. */
export function saveFile(name: string, content: unknown) {
  const plain = name.toLowerCase().replace(/[^a-z0-9]+/g, "-") || "effect";
  download(`${plain}.json`, new Blob([JSON.stringify(content, null, 1)], { type: "application/json" }));
}
