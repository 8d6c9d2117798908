const table = document.getElementById("tickets");
if (table) {
  fetch(document.body.dataset.base + "/api/tickets")
    .then((answer) => answer.json())
    .then((tickets) => {
      for (const ticket of tickets.filter((t) => !t.done)) {
        const row = table.insertRow();
        for (const text of [ticket.bike, ticket.fault, ticket.mechanic]) {
          row.insertCell().textContent = text;
        }
      }
    });
}
