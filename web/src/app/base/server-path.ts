/** The path of a route of the API: under the path that this page itself stands under. */
export const serverPath = (route: string): string => {
  const { pathname, search } = new URL(`api${route}`, document.baseURI);
  return `${pathname}${search}`;
};

/** Where this page is reached, without a slash at the end. */
export const ownAddress = (): string => new URL('.', document.baseURI).href.replace(/\/$/, '');
