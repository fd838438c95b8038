/** ffmpeg and ffprobe as child processes: decoding what people bring, encoding what is published. */
package org.mellowclass.media;
