import { showProblem } from "/kit/form.js";

const form = document.querySelector("#member");
const said = document.querySelector("#said");

form.addEventListener("submit", async (event) => {
  event.preventDefault();
  const response = await fetch("/members", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(Object.fromEntries(new FormData(form))),
  });
  const answer = await response.json();
  if (response.ok) {
    said.textContent = `Stored: ${answer.name}, ${answer.line} (${answer.lat}, ${answer.lon}).`;
    form.reset();
  } else {
    const elsewhere = showProblem(form, answer);
    said.textContent = ["Not stored.", ...elsewhere].join(" ");
  }
});
