// Changes the first pin of the garment shown, as another device would; answers with the status.
const [amount, done] = arguments;
const garment = `/api/v1${location.pathname.split("/").slice(0, 3).join("/")}`;
(async () => {
  const state = await (await fetch(garment)).json();
  const try_on = state.document.try_ons.at(-1);
  try_on.changes[0].seam.readings[0].amount = amount;
  const answer = await fetch(`${garment}/try-ons/${try_on.id}`, {
    method: "PUT",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ version: state.try_on_versions.at(-1), try_on }),
  });
  done(answer.status);
})();
