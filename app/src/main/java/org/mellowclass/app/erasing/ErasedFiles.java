package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.Collection;
import java.util.List;

import org.mellowclass.app.store.KeptBytes;
import org.springframework.stereotype.Component;

/** Deletes the files of what was erased, wherever they lie; none of them goes to the bin. */
@Component
class ErasedFiles {

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
}
