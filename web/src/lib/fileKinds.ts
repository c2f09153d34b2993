/** Endings that a picker offers; what a file is, the server reads from its first bytes. */
export const STILLS = '.png,.jpg,.jpeg,.tif,.tiff,.exr,.dpx,.webp,.heic,.heif,.avif,.dng,.cr2,.cr3,.nef,.arw,.raf,.orf,.rw2'
export const CLIPS = '.mp4,.mov,.m4v,.mkv,.mxf,.avi,.mts,.m2ts,.ts'
