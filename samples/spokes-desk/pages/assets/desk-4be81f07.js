const settings = JSON.parse(document.getElementById("jolly-settings").textContent);
document.querySelector("h1").textContent = settings.title;

fetch(settings.api + "/tickets")
  .then((answer) => answer.json())
  .then((tickets) => {
    const table = document.getElementById("tickets");
    for (const ticket of tickets.filter((t) => !t.done)) {
      const row = table.insertRow();
      for (const text of [ticket.bike, ticket.fault, ticket.mechanic]) {
        row.insertCell().textContent = text;
      }
    }
  })
  .catch((trouble) => {
    document.getElementById("trouble").textContent = settings.api + ": " + trouble.message;
  });
