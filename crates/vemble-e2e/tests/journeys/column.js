// Pastes a column of figures into the field with this label, as a spreadsheet would give it.
const [label, text, done] = arguments;
const field = document.querySelector(`input[aria-label='${label}']`);
const data = new DataTransfer();
data.setData("text/plain", text);
field.focus();
field.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
done(true);
