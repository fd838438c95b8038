package org.mellowclass.app.bench;

import java.util.List;

import org.mellowclass.app.people.Person;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The log of the bench: what was done, by whom; versions that have a name; going back. */
@RestController
class HistoryController {

    private final History history;
    private final Bench bench;
    private final BenchViews views;

    HistoryController(History history, Bench bench, BenchViews views) {
        this.history = history;
        this.bench = bench;
        this.views = views;
    }

    @GetMapping("/episodes/{episodeId}/log")
    List<History.Entry> log(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam(defaultValue = "9223372036854775807") long before) {
        return history.log(viewer, episodeId, before);
    }

    record NameRequest(String name) {
    }

    @PostMapping("/episodes/{episodeId}/versions/{revision}/name")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void name(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision, @RequestBody NameRequest request) {
        history.name(viewer, episodeId, revision, request.name());
    }

    /** @param seq the revision to go back to */
    record GoBackRequest(String clientId, long base, long shown, long seq) {
        GoBackRequest {
            BenchViews.clientId(clientId);
        }
    }

    @PostMapping("/episodes/{episodeId}/go-back")
    BenchViews.TimelineView goBack(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody GoBackRequest request) {
        return views.view(viewer, episodeId, bench.goBack(viewer, episodeId, request.base(), request.clientId(), request.seq()), request.shown());
    }
}
