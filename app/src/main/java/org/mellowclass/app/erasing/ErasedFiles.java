package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.Collection;
import java.util.List;

import org.mellowclass.app.store.KeptBytes;
import org.mellowclass.app.store.Scratch;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Deletes the files of what was erased, wherever they lie; none of them goes to the bin. */
@Component
class ErasedFiles {

    private static final Logger LOG = LoggerFactory.getLogger(ErasedFiles.class);

    private final List<KeptBytes> stores;
    private final Scratch scratch;

    ErasedFiles(List<KeptBytes> stores, Scratch scratch) {
        this.stores = stores;
        this.scratch = scratch;
    }

    /** What somebody is working on of an owner; called when its rows are gone, so that nobody begins anew. */
    void deleteWork(Scratch.Owner owner) throws IOException {
        scratch.forget(owner);
    }

    /** Files that came in parts. */
    void deleteParts(Collection<String> paths) throws IOException {
        for (String path : paths) {
            scratch.deletePart(path);
        }
    }

    /** Those that are gone already are no error. */
    void delete(Collection<String> keys) throws IOException {
        for (String key : keys) {
            for (KeptBytes store : stores) {
                store.delete(key);
            }
        }
    }

    /** As {@link #delete}, with the work on it; what cannot be deleted now stands in the {@link ErasedJournal}, and goes with the next start. */
    void deleteOrLeaveToTheJournal(Collection<String> keys, Scratch.Owner owner) {
        try {
            delete(keys);
            deleteWork(owner);
        } catch (IOException failed) {
            LOG.error("what was erased could not be deleted from the disk", failed);
        }
    }
}
