// A form that was refused stands there again as it was typed, with what was wrong beside its field.
export function formsAgain() {
  const said = document.getElementById("refused");
  if (said) again(JSON.parse(said.textContent));
}

function again({ action, sentence, field, fields }) {
  const form = formOf(action, fields);
  if (!form) return;
  for (const [name, values] of Object.entries(fields)) fill(form, name, [...values]);
  const about = fieldOf(form, sentence, field, fields);
  const alert = document.querySelector("[data-refused-form]");
  for (let box = form.closest("details") ?? form.parentElement.closest("details"); box; box = box.parentElement.closest("details"))
    box.open = true;
  if (about?.closest("details")) about.closest("details").open = true;
  const place = about?.closest("label, .form-field, div, p") ?? about;
  if (place && place !== form && form.contains(place)) place.after(alert);
  else form.prepend(alert);
  about?.setAttribute("aria-invalid", "true");
  (about ?? form).scrollIntoView({ block: "center" });
  about?.focus();
}

// The form of an address: by its own action or that of one of its buttons; of several alike the one with the same hidden fields, and of
// those the one with most of the fields that were sent.
function formOf(action, fields) {
  const forms = [...document.forms].filter(
    (form) => form.method === "post" && (leads(form.getAttribute("action")) || form.querySelector(`[formaction="${CSS.escape(action)}"]`)),
  );
  const own = (form) =>
    [...form.querySelectorAll("input[type=hidden]")].every(
      (hidden) => !(hidden.name in fields) || fields[hidden.name].includes(hidden.value),
    );
  const sent = (form) => new Set([...form.elements].map(({ name }) => name).filter((name) => name in fields)).size;
  const alike = forms.some(own) ? forms.filter(own) : forms;
  return alike.sort((a, b) => sent(b) - sent(a))[0];
  function leads(to) {
    const address = new URL(to ?? location.href, location.href);
    return address.pathname + address.search === action;
  }
}

function fill(form, name, values) {
  for (const field of [...form.elements].filter((each) => each.name === name && each.type !== "hidden" && each.type !== "file")) {
    if (field.type === "checkbox" || field.type === "radio") field.checked = values.includes(field.value);
    else if (values.length > 0) field.value = values.shift();
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }
}

// The field that a sentence is about: named, or quoted by what stands in it, or empty where something has to be.
function fieldOf(form, sentence, named, fields) {
  const open = [...form.elements].filter((each) => each.name && each.type !== "hidden" && each.tagName !== "BUTTON");
  const quoted = /'([^']+)'/.exec(sentence)?.[1];
  return (
    open.find((each) => named && each.name.toLowerCase() === named.toLowerCase()) ??
    open.find((each) => quoted && fields[each.name]?.includes(quoted)) ??
    open.find((each) => each.type === "file") ??
    open.find((each) => each.value === "" && ["INPUT", "TEXTAREA"].includes(each.tagName)) ??
    open.find((each) => ["INPUT", "TEXTAREA"].includes(each.tagName))
  );
}
