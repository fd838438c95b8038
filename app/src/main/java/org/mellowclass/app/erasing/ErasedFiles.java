package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.Collection;
import java.util.List;

import org.mellowclass.app.store.KeptBytes;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Deletes the files of what was erased, wherever they lie; none of them goes to the bin. */
@Component
class ErasedFiles {

    private static final Logger LOG = LoggerFactory.getLogger(ErasedFiles.class);

    private final List<KeptBytes> stores;

    ErasedFiles(List<KeptBytes> stores) {
        this.stores = stores;
    }

    /** Those that are gone already are no error. */
    void delete(Collection<String> keys) throws IOException {
        for (String key : keys) {
            for (KeptBytes store : stores) {
                store.delete(key);
            }
        }
    }

    /** As {@link #delete}; what cannot be deleted now stands in the {@link ErasedJournal}, and goes with the next start. */
    void deleteOrLeaveToTheJournal(Collection<String> keys) {
        try {
            delete(keys);
        } catch (IOException failed) {
            LOG.error("what was erased could not be deleted from the disk", failed);
        }
    }
}
