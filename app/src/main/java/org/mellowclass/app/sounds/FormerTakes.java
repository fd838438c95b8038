package org.mellowclass.app.sounds;

import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

import org.mellowclass.core.treatment.Treatment;
import org.springframework.stereotype.Component;

/**
 * What takes that were made of other takes have become: a treatment of the take they were made of. Timelines and notes that
 * were stored before there were treatments still name them.
 */
@Component
public class FormerTakes {

    private final SoundMapper sounds;
    private volatile Map<Long, Former> former;

    FormerTakes(SoundMapper sounds) {
        this.sounds = sounds;
    }

    public record Former(long takeId, Treatment treatment) {
    }

    /** Empty for a take that is one. Their number never grows, so they are read once. */
    public Optional<Former> of(long id) {
        if (former == null) {
            former = sounds.former().stream().collect(Collectors.toMap(SoundMapper.Former::id,
                    row -> new Former(row.takeId(), TreatmentCodec.read(row.treatment()))));
        }
        return Optional.ofNullable(former.get(id));
    }
}
