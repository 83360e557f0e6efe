// Drags a pin straight down by some pixels; answers, once the line was painted anew, with the path and how long it took. Lets go of
// it unless it is to be held.
const [css, by, held, done] = arguments;
const pin = document.querySelector(css);
const box = pin.querySelector("circle").getBoundingClientRect();
const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
const line = () => [...document.querySelectorAll("[data-line=new]")].map((p) => p.getAttribute("d")).join();
const send = (kind, y) =>
  pin.dispatchEvent(
    new PointerEvent(kind, { pointerId: 1, clientX: at.x, clientY: y, bubbles: true, isPrimary: true, button: 0 }),
  );
pin.setPointerCapture = () => {};
send("pointerdown", at.y);
const before = line();
const from = performance.now();
send("pointermove", at.y + by);
const look = () => {
  if (line() === before && performance.now() - from < 10000) return requestAnimationFrame(look);
  const took = performance.now() - from;
  const path = document.querySelector("[data-line=new]").getAttribute("d");
  if (!held) send("pointerup", at.y + by);
  done({ path, took });
};
requestAnimationFrame(look);
