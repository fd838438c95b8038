package org.mellowclass.app.incoming;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import java.util.Map;
import java.util.stream.Collectors;

import org.mellowclass.app.incoming.FilesInParts.Progress;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.Refusal;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;

/** Files in parts by the open protocol for resumable uploads, tus 1.0.0: its core and the extension "creation". */
@Controller
class FilesInPartsController {

    private static final String TUS_RESUMABLE = "Tus-Resumable";
    private static final String UPLOAD_OFFSET = "Upload-Offset";
    private static final String UPLOAD_LENGTH = "Upload-Length";
    private static final String VERSION = "1.0.0";

    private final FilesInParts files;

    FilesInPartsController(FilesInParts files) {
        this.files = files;
    }

    @PostMapping(path = "/episodes/{episodeId}/files")
    ResponseEntity<Void> begin(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId,
                               @RequestHeader(name = UPLOAD_LENGTH, defaultValue = "0") long length,
                               @RequestHeader(name = "Upload-Metadata", defaultValue = "") String metadata) throws IOException {
        Map<String, String> said = metadata(metadata);
        String placing = said.getOrDefault("placing", Take.Placing.BEHIND.name());
        if (!placing.matches("BEHIND|START|LIST")) {
            throw Refusal.unfit("take.PLACING");
        }
        String key = files.begin(viewer, episodeId, said.get("filename"), said.get("trackName"), Take.Placing.valueOf(placing), length);
        return ResponseEntity.status(HttpStatus.CREATED).header(TUS_RESUMABLE, VERSION).header("Location", "/files/" + key).build();
    }

    @RequestMapping(path = "/files/{uploadKey}", method = RequestMethod.HEAD)
    ResponseEntity<Void> arrived(@AuthenticationPrincipal Person viewer, @PathVariable String uploadKey) throws IOException {
        Progress progress = files.progress(viewer, uploadKey);
        return ResponseEntity.ok().header(TUS_RESUMABLE, VERSION).header(UPLOAD_OFFSET, Long.toString(progress.here()))
                .header(UPLOAD_LENGTH, Long.toString(progress.bytes())).cacheControl(CacheControl.noStore()).build();
    }

    @PatchMapping("/files/{uploadKey}")
    ResponseEntity<Void> add(@AuthenticationPrincipal Person viewer, @PathVariable String uploadKey,
                             @RequestHeader(name = UPLOAD_OFFSET, defaultValue = "0") long offset, InputStream part) throws IOException {
        long here = files.add(viewer, uploadKey, offset, part);
        return ResponseEntity.noContent().header(TUS_RESUMABLE, VERSION).header(UPLOAD_OFFSET, Long.toString(here)).build();
    }

    /** Pairs of a word and a value in Base64, with commas between them. */
    private static Map<String, String> metadata(String header) {
        try {
            return Arrays.stream(header.split(",")).map(pair -> pair.strip().split(" ")).filter(pair -> pair.length == 2)
                    .collect(Collectors.toMap(pair -> pair[0], pair -> new String(Base64.getDecoder().decode(pair[1]), StandardCharsets.UTF_8),
                            (first, second) -> first));
        } catch (IllegalArgumentException notBase64) {
            throw Refusal.unfit("take.METADATA");
        }
    }
}
