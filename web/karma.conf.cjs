const { appendFileSync, existsSync } = require('node:fs');

process.env.CHROME_BIN ??= ['/usr/lib/chromium/chromium-headless-shell', '/usr/bin/chromium'].find((path) =>
  existsSync(path),
);

const times = process.env.SPEC_TIMES;
/** Each spec's time goes to the file that `npm test` lists the slowest from. */
function Times() {
  this.onSpecComplete = (_browser, { suite, description, time }) => {
    if (times) appendFileSync(times, `${JSON.stringify({ ms: time, name: [...suite, description].join(' ') })}\n`);
  };
}

module.exports = (config) => {
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher'), { 'reporter:times': ['type', Times] }],
    reporters: ['dots', 'times'],
    browsers: ['HeadlessChromium'],
    customLaunchers: {
      HeadlessChromium: {
        base: 'ChromeHeadless',
        flags: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--window-size=1280,800'],
      },
    },
    // A busy machine is no failure: the rooms without a browser are tested beside, and a page that lays out
    // a sheet can't answer karma's ping meanwhile (5 s and 2 s by default: the browser was given up as gone).
    pingTimeout: 120_000,
    browserDisconnectTimeout: 120_000,
    browserNoActivityTimeout: 240_000,
    captureTimeout: 240_000,
    client: { jasmine: { failSpecWithNoExpectations: true, timeoutInterval: 30_000 } },
    restartOnFileChange: false,
  });
};
