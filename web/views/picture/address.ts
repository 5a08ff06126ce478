/** Where the server has a picture, by the SHA-256 of its bytes. */
export const pictureAddress = (hash: string) => `/api/photos/${hash}`;
