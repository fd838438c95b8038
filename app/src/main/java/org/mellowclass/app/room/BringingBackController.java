package org.mellowclass.app.room;

import java.io.IOException;

import org.mellowclass.app.people.Person;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

@RestController
class BringingBackController {

    private final BringingBack bringingBack;

    BringingBackController(BringingBack bringingBack) {
        this.bringingBack = bringingBack;
    }

    /** A take that was treated elsewhere comes back. */
    @PostMapping("/takes/{takeId}/returned")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bringBack(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @RequestParam MultipartFile file) throws IOException {
        bringingBack.bringBack(viewer, takeId, target -> file.transferTo(target.toFile()));
    }
}
