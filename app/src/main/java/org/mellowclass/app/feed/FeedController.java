package org.mellowclass.app.feed;

import com.rometools.rome.io.FeedException;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.stream.Collectors;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.feed.FeedMapper.Feed;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.DigestUtils;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.util.UriComponentsBuilder;

/** The public side: pages and files for listeners, who do not sign in. */
@Controller
class FeedController {

    private static final MediaType RSS = new MediaType("application", "rss+xml", StandardCharsets.UTF_8);
    private static final MediaType MP3 = MediaType.valueOf("audio/mpeg");

    private final PublicFeed feeds;
    private final MellowProperties properties;

    FeedController(PublicFeed feeds, MellowProperties properties) {
        this.feeds = feeds;
        this.properties = properties;
    }

    @GetMapping("/f/{feedKey}")
    String feedPage(@PathVariable String feedKey, Model model, HttpServletResponse response) {
        Feed feed = feeds.feed(feedKey);
        listed(feed, response);
        model.addAttribute("feed", feed);
        model.addAttribute("addresses", addresses(feedKey));
        List<Publication> onAir = feeds.onAir(feedKey);
        model.addAttribute("episodes", onAir);
        model.addAttribute("pictures", onAir.stream().collect(Collectors.toMap(Publication::id, feeds::picture)));
        return "feed/feed";
    }

    @GetMapping("/f/{feedKey}/feed.xml")
    ResponseEntity<byte[]> rss(@PathVariable String feedKey) throws FeedException {
        Feed feed = feeds.feed(feedKey);
        String xml = RssWriter.write(feed, feeds.onAir(feedKey).stream().map(feeds::whole).toList(), addresses(feedKey));
        byte[] bytes = xml.getBytes(StandardCharsets.UTF_8);
        // who asks again is told in a few bytes that nothing is new
        return ResponseEntity.ok().contentType(RSS).cacheControl(CacheControl.noCache()).eTag(DigestUtils.md5DigestAsHex(bytes)).body(bytes);
    }

    @GetMapping("/f/{feedKey}/{episodeKey}")
    String episodePage(@PathVariable String feedKey, @PathVariable String episodeKey, Model model, HttpServletResponse response) {
        Feed feed = feeds.feed(feedKey);
        Publication episode = feeds.episode(feedKey, episodeKey);
        List<Publication> onAir = feeds.onAir(feedKey);
        int at = onAir.indexOf(episode);
        listed(feed, response);
        model.addAttribute("feed", feed);
        model.addAttribute("addresses", addresses(feedKey));
        model.addAttribute("episode", episode);
        model.addAttribute("heard", feeds.whole(episode));
        model.addAttribute("picture", feeds.picture(episode));
        model.addAttribute("next", at > 0 ? onAir.get(at - 1) : null);
        model.addAttribute("earlier", at >= 0 && at < onAir.size() - 1 ? onAir.get(at + 1) : null);
        return "feed/episode";
    }

    /** Search engines list a page only if the school says so. */
    private static void listed(Feed feed, HttpServletResponse response) {
        if (!feed.indexed()) {
            response.setHeader("X-Robots-Tag", "noindex");
        }
    }

    @GetMapping("/f/{feedKey}/cover.png")
    ResponseEntity<byte[]> cover(@PathVariable String feedKey) {
        byte[] png = feeds.cover(feeds.feed(feedKey));
        return ResponseEntity.ok().contentType(MediaType.IMAGE_PNG).cacheControl(CacheControl.maxAge(Duration.ofHours(1)))
                .eTag(DigestUtils.md5DigestAsHex(png)).body(png);
    }

    /** The MP3, whole or in ranges. Caches must ask again each time, so that off air is off air everywhere. */
    @GetMapping("/f/{feedKey}/{episodeKey}/{slug}.mp3")
    ResponseEntity<Resource> sound(@PathVariable String feedKey, @PathVariable String episodeKey, @PathVariable String slug)
            throws IOException {
        return ResponseEntity.ok().contentType(MP3).eTag(episodeKey + "-" + slug)
                .cacheControl(CacheControl.maxAge(Duration.ZERO).mustRevalidate())
                .body(feeds.sound(feedKey, episodeKey, slug));
    }

    @ExceptionHandler
    @ResponseStatus(HttpStatus.GONE)
    String gone(PublicFeed.Gone gone) {
        return "feed/gone";
    }

    private RssWriter.Addresses addresses(String feedKey) {
        String page = UriComponentsBuilder.fromUri(properties.address()).path("/f/").path(feedKey).toUriString();
        return new RssWriter.Addresses() {
            @Override
            public String feedPage() {
                return page;
            }

            @Override
            public String feed() {
                return page + "/feed.xml";
            }

            @Override
            public String cover() {
                return page + "/cover.png";
            }

            @Override
            public String episodePage(Publication publication) {
                return page + "/" + publication.publicKey();
            }

            @Override
            public String sound(Publication publication) {
                return episodePage(publication) + "/" + publication.fileName() + ".mp3";
            }
        };
    }
}
