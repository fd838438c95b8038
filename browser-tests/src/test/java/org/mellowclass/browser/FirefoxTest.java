package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;

import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import org.junit.jupiter.api.Test;

/** A take is recorded in Firefox too, whose microphone hums a tone; what arrives is that tone, whole. */
class FirefoxTest extends BrowserTest {

    private static final String LAST_TAKE = "document.querySelector('#take-list audio')";

    @Test
    void a_take_is_recorded_and_heard_in_firefox() throws IOException {
        try (Firefox firefox = new Firefox()) {
            firefox.navigate(address("/sign-in"));
            firefox.type("#panel-student input[name=code]", "heron8");
            firefox.type("#panel-student input[name=name]", "Otis");
            firefox.type("#panel-student input[name=passphrase]", "long shore");
            firefox.click("#panel-student button[type=submit]");
            firefox.await("location.pathname.endsWith('/bench')");
            String episode = firefox.evaluate("location.pathname").replaceAll("\\D", "");
            firefox.navigate(address("/episodes/" + episode + "/record"));
            assertThat(firefox.evaluate("document.getElementById('mic-problem').hidden")).as("nothing that the browser lacks").isEqualTo("true");
            String timelineNow = "fetch('/episodes/" + episode + "/timeline').then(answer => answer.json())";
            int flags = flags(firefox.evaluate(timelineNow));
            int before = Integer.parseInt(firefox.evaluate("document.querySelectorAll('#take-list audio').length"));

            firefox.click("#record");
            firefox.await("parseFloat(document.getElementById('clock').textContent.split(':')[1]) > 3");
            firefox.click("#flag");
            firefox.click("#record");
            firefox.await("document.getElementById('record-state').textContent.includes('Your take is kept')");
            firefox.await("document.querySelectorAll('#take-list audio').length > " + before);

            JsonObject heard = JsonParser.parseString(firefox.evaluate("""
                    (async () => {
                      const bytes = await (await fetch(%s.src)).arrayBuffer();
                      const { rate, length, data } = await new OfflineAudioContext(1, 1, 48000).decodeAudioData(bytes)
                        .then(sound => ({ rate: sound.sampleRate, length: sound.length, data: sound.getChannelData(0) }));
                      let squares = 0;
                      let crossings = 0;
                      const from = Math.floor(length / 2);
                      for (let i = from; i < length; i++) {
                        squares += data[i] ** 2;
                        crossings += data[i - 1] < 0 && data[i] >= 0 ? 1 : 0;
                      }
                      return { seconds: length / rate, rms: Math.sqrt(squares / (length - from)), hertz: crossings * rate / (length - from) };
                    })()""".formatted(LAST_TAKE))).getAsJsonObject();
            assertThat(heard.get("seconds").getAsDouble()).isBetween(3.0, 30.0);
            assertThat(heard.get("rms").getAsDouble()).as("it hums").isGreaterThan(0.01);
            assertThat(heard.get("hertz").getAsDouble()).as("one tone, without gaps").isBetween(400.0, 1100.0);
            assertThat(flags(firefox.evaluate(timelineNow))).as("the flag that was set while speaking").isEqualTo(flags + 1);
        }
    }

    private static int flags(String timeline) {
        return JsonParser.parseString(timeline).getAsJsonObject().getAsJsonArray("flags").size();
    }
}
