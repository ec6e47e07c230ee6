// Calls notes and note values as the room does, wherever they are read: the server says what is called how, and only where it differs from
// what is printed. What is typed and sent keeps the letters.
const read = ["aria-label", "title", "alt"];

export function rename(root) {
  const table = document.getElementById("names");
  if (!table) return;
  const names = JSON.parse(table.textContent);
  const printed = Object.keys(names).sort((a, b) => b.length - a.length);
  const found = new RegExp(`(?<![\\p{L}\\d♭♯#])(?:${printed.join("|")})(?![\\p{L}\\d])`, "gu");
  const called = (text) => text.replace(found, (name) => names[name]);
  // What was called once is not called again, wherever it is moved to.
  const done = new WeakMap();
  const inText = (node) => {
    if (done.get(node) === node.data || node.parentElement?.closest("script, style, textarea")) return;
    node.data = called(node.data);
    done.set(node, node.data);
  };
  const inAttributes = (element) => {
    for (const name of read) {
      const value = element.getAttribute?.(name);
      if (!value || done.get(element)?.[name] === value) continue;
      element.setAttribute(name, called(value));
      done.set(element, { ...done.get(element), [name]: element.getAttribute(name) });
    }
  };
  const walk = (node) => {
    if (node.nodeType === Node.TEXT_NODE) return inText(node);
    if (node.nodeType !== Node.ELEMENT_NODE) return;
    inAttributes(node);
    node.childNodes.forEach(walk);
  };
  const watch = { subtree: true, childList: true, characterData: true, attributes: true, attributeFilter: read };
  const observer = new MutationObserver((changes) => {
    for (const { type, target, addedNodes } of changes) {
      if (type === "childList") addedNodes.forEach(walk);
      else if (type === "characterData") inText(target);
      else inAttributes(target);
    }
  });
  walk(root);
  observer.observe(root, watch);
}
