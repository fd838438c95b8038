package org.mellowclass.app.recording;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;

import org.mellowclass.app.web.Refusal;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;

/** What recordings send, outside of any sign-in: the random key of a take is all that counts here. */
@Controller
@RequestMapping("/uploads/{uploadKey}")
class UploadController {

    private final Recording recording;

    UploadController(Recording recording) {
        this.recording = recording;
    }

    @PutMapping("/chunks/{number}")
    ResponseEntity<Void> chunk(@PathVariable String uploadKey, @PathVariable int number, @RequestParam long firstFrame,
               @RequestParam long crc32, @RequestParam(defaultValue = "false") boolean sealed, InputStream body) throws IOException {
        int most = Recording.MOST_CHUNK_BYTES + Seal.MORE_BYTES;
        byte[] sent = body.readNBytes(most + 1);
        if (sent.length > most) {
            throw Refusal.unfit("take.CHUNK", number);
        }
        recording.chunk(uploadKey, number, firstFrame, crc32, sent, sealed);
        CRC32 stored = new CRC32();
        stored.update(sent);
        return ResponseEntity.noContent().header("Stored-CRC32", Long.toString(stored.getValue())).build();
    }

    @PostMapping("/sign")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void sign(@PathVariable String uploadKey) {
        recording.sign(uploadKey);
    }

    @PutMapping("/flags/{sourceFrame}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void flag(@PathVariable String uploadKey, @PathVariable long sourceFrame) {
        recording.flag(uploadKey, sourceFrame);
    }

    record End(int chunks, long frames, boolean evenWithGaps) {
    }

    @PostMapping("/end")
    @ResponseBody
    Map<String, List<Integer>> end(@PathVariable String uploadKey, @RequestBody End end) {
        return Map.of("missing", recording.end(uploadKey, end.chunks(), end.frames(), end.evenWithGaps()));
    }
}
