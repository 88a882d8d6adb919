/* Dates and numbers are read in these tests as a British reader writes them, whatever the machine speaks. */
Object.defineProperty(navigator, 'language', { value: 'en-GB', configurable: true });

/* Nothing here has a server: whatever a test does not answer itself finds no connection. */
globalThis.fetch = () => Promise.reject(new TypeError('There is no server in these tests.'));
