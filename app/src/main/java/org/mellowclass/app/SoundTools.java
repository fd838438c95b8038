package org.mellowclass.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;

import org.mellowclass.media.Mp3Publisher;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundEncoder;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The outside world as beans: ffmpeg and the clock. */
@Configuration
class SoundTools {

    private final Path folder;

    SoundTools(MellowProperties properties) throws IOException {
        folder = Files.createDirectories(properties.folder().toAbsolutePath().resolve("arriving"));
    }

    @Bean
    SoundDecoder soundDecoder() {
        return SoundDecoder.forUploads();
    }

    @Bean
    SoundEncoder soundEncoder() {
        return new SoundEncoder(folder);
    }

    @Bean
    Mp3Publisher mp3Publisher(SoundEncoder encoder, SoundDecoder decoder) {
        return new Mp3Publisher(encoder, decoder);
    }

    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }
}
