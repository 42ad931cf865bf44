package lane.desk.readings;

import javafx.scene.Node;
import lane.reading.Reading;

/** Shows one reading in all lanes. */
interface ReadingPane {
    Node show(Reading reading);
}
