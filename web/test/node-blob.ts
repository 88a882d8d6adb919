/** A blob that can be stored by value, as a browser's can: the test document's own cannot. */
export { Blob as NodeBlob } from 'node:buffer';
