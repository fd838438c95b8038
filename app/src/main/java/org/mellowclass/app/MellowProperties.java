package org.mellowclass.app;

import java.net.URI;
import java.nio.file.Path;

import jakarta.validation.constraints.NotNull;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;
import org.springframework.validation.annotation.Validated;

/**
 * The application's own settings.
 *
 * @param address     under which people and feeds reach it: links are made from it, never from what a request says
 * @param folder    where sound is stored, and on its way kept
 * @param demo      whether the demo school is loaded into an empty database
 * @param mostDerived how much is kept of what can be made again
 * @param room      how much may be stored
 * @param readyFile written when everything is ready, with what to tell the person who started it; may be null
 */
@Validated
@ConfigurationProperties("mellow")
public record MellowProperties(@NotNull URI address, @NotNull Path folder, boolean demo, @DefaultValue("20GB") DataSize mostDerived, @DefaultValue @NotNull Room room,
                               Path readyFile) {

    /**
     * How much may be stored.
     *
     * @param keptForRecordings is left free on the disk by everything but recordings
     * @param mostForCrew       of sound that a crew keeps
     * @param mostForClass      of sound that a class keeps, its crews' among it
     */
    public record Room(@DefaultValue("512MB") DataSize keptForRecordings, @DefaultValue("20GB") DataSize mostForCrew,
                       @DefaultValue("200GB") DataSize mostForClass) {
    }
}
