package org.mellowclass.browser;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Base64;

import com.microsoft.playwright.Page;

/**
 * A microphone into which a file is spoken. Chromium's own stand-in repeats and drops hundredths of a second whenever the
 * machine is busy; here the file enters the page's own audio graph where the microphone would, and nothing is lost on the
 * way there. Permission, device and everything behind that place are the real ones.
 */
final class Microphones {

    private static final int WAV_HEADER = 44;

    private Microphones() {
    }

    /** From its next navigation on, what the page hears starts with the first sample of a mono 16-bit WAV at 44.1 kHz. */
    static void speak(Page page, Path wav) throws IOException {
        byte[] bytes = Files.readAllBytes(wav);
        String samples = Base64.getEncoder().encodeToString(Arrays.copyOfRange(bytes, WAV_HEADER, bytes.length));
        page.addInitScript("""
                const bytes = Uint8Array.from(atob('%s'), letter => letter.charCodeAt(0));
                const samples = Float32Array.from(new Int16Array(bytes.buffer), sample => sample / 32768);
                AudioContext.prototype.createMediaStreamSource = function () {
                  const source = new AudioBufferSourceNode(this, {
                    buffer: new AudioBuffer({ length: samples.length, sampleRate: 44100 }) });
                  source.buffer.copyToChannel(samples, 0);
                  source.start();
                  return source;
                };
                """.formatted(samples));
    }
}
