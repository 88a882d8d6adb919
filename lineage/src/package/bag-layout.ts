/** The names of a bag's own files (RFC 8493, section 2), and of the folder of what it carries. */
export const DECLARATION = 'bagit.txt';
export const MANIFEST = 'manifest-sha256.txt';
export const TAG_MANIFEST = 'tagmanifest-sha256.txt';
export const PAYLOAD = 'data/';
