package org.mellowclass.app.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.util.Set;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.Fields;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Files of an episode, or of a part of it. */
@RestController
class ExportController {

    private final Exports exports;

    ExportController(Exports exports) {
        this.exports = exports;
    }

    @GetMapping("/episodes/{episodeId}/export/{revision}")
    Exports.Facts facts(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision,
                        @RequestParam(defaultValue = "0") long from, @RequestParam(defaultValue = "0") long to, @RequestParam(defaultValue = "") Set<Long> tracks) {
        return exports.facts(viewer, episodeId, wanted(revision, from, to, tracks));
    }

    @GetMapping("/episodes/{episodeId}/export/{revision}/file")
    ResponseEntity<StreamingResponseBody> file(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision,
                                               @RequestParam(defaultValue = "0") long from, @RequestParam(defaultValue = "0") long to,
                                               @RequestParam(defaultValue = "") Set<Long> tracks, @RequestParam(defaultValue = "MP3") Exports.Format format,
                                               @RequestParam(defaultValue = "") String key) throws IOException {
        Exports.Written written = exports.write(viewer, episodeId, wanted(revision, from, to, tracks), format, RandomKey.is(key) ? key : "");
        StreamingResponseBody body = out -> {
            try {
                Files.copy(written.file(), out);
            } finally {
                Files.deleteIfExists(written.file());
            }
        };
        return ResponseEntity.ok().contentType(MediaType.valueOf(format.mediaType())).contentLength(Files.size(written.file())).cacheControl(CacheControl.noStore())
                .header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(written.name()).build().toString()).body(body);
    }

    /** @param percent of a file that is being made */
    record Progress(int percent) {
    }

    @GetMapping("/episodes/{episodeId}/export/progress/{key}")
    Progress progress(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable String key) {
        return new Progress(exports.progress(viewer, episodeId, key));
    }

    private static Exports.Wanted wanted(long revision, long from, long to, Set<Long> tracks) {
        return new Exports.Wanted(revision, Fields.frame(from), Fields.frame(to), Set.copyOf(tracks));
    }
}
