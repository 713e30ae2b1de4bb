/** Runs in the page: when a text stands on the sheet and its frame is handed over, ms since 1970. */
function shownAt(wanted) {
  return new Promise((resolve) => {
    const look = () => {
      if (!(document.querySelector('main') ?? document.body).textContent.includes(wanted)) {
        requestAnimationFrame(look);
        return;
      }
      requestAnimationFrame(() => setTimeout(() => resolve(performance.timeOrigin + performance.now())));
    };
    look();
  });
}
