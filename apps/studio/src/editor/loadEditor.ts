/** The editor of a reel, apart from what shows the first pictures: loaded when a reel is opened, or there is time. */
export const loadEditor = async () => (await import('./ReelScreen')).ReelScreen;
