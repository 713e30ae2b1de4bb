const { existsSync } = require('node:fs');

process.env.CHROME_BIN ??= ['/usr/lib/chromium/chromium-headless-shell', '/usr/bin/chromium'].find((path) =>
  existsSync(path),
);

module.exports = (config) => {
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    reporters: ['dots'],
    browsers: ['HeadlessChromium'],
    customLaunchers: {
      HeadlessChromium: {
        base: 'ChromeHeadless',
        flags: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--window-size=1280,800'],
      },
    },
    // A busy machine is no failure: the rooms without a browser are tested beside.
    client: { jasmine: { failSpecWithNoExpectations: true, timeoutInterval: 30_000 } },
    restartOnFileChange: false,
  });
};
