package org.youngtally.documents;

import java.util.HashMap;
import java.util.Map;
import org.youngtally.core.numbering.Item;

/** Items of which only the part between two marks is looked at and written. Those without the marks are none. */
final class MarkedItems extends ItemsOfAnother {
    private final Map<String, Around> around = new HashMap<>();

    /** What stays, the marks among it. */
    private record Around(String before, String after) {}

    MarkedItems(NumberedFile file, Between marks) {
        super(file);
        for (Item item : file.items()) {
            int before = item.text().indexOf(marks.before());
            int from = before + marks.before().length();
            int to = before < 0 ? -1 : item.text().indexOf(marks.after(), from);
            if (to < 0) continue;
            around.put(
                    item.id(),
                    new Around(item.text().substring(0, from), item.text().substring(to)));
            see(item, item.id(), item.text().substring(from, to));
        }
    }

    @Override
    Map<String, String> own(Map<String, String> changed) {
        var whole = new HashMap<String, String>();
        changed.forEach((id, text) ->
                whole.put(id, around.get(id).before() + text + around.get(id).after()));
        return whole;
    }
}
