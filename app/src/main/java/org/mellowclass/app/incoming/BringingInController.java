package org.mellowclass.app.incoming;

import java.io.IOException;
import java.util.Map;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.Take;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;

@Controller
class BringingInController {

    private final BringingIn bringingIn;

    BringingInController(BringingIn bringingIn) {
        this.bringingIn = bringingIn;
    }

    @PostMapping("/episodes/{episodeId}/takes")
    @ResponseBody
    Map<String, Long> bringIn(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId,
                              @RequestParam MultipartFile file, @RequestParam String trackName,
                              @RequestParam(defaultValue = "BEHIND") Take.Placing placing) throws IOException {
        return Map.of("takeId", bringingIn.bringIn(viewer, episodeId, file.getOriginalFilename(), trackName, placing,
                target -> file.transferTo(target.toFile())));
    }
}
