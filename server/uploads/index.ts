export { dropUpload, readUpload, sweepSent } from './pieces'
export { resumable, UPLOADS_PATH } from './resumable'
