package lane.desk.readings;

import java.util.List;
import lane.reading.BalanceOf;
import lane.reading.Reading;
import org.kordamp.ikonli.feather.Feather;

/** Balances, shown as stairs. */
public final class BalanceForm implements AskForm {
    @Override
    public String word() {
        return "balance";
    }

    @Override
    public Class<BalanceOf> type() {
        return BalanceOf.class;
    }

    @Override
    public String group() {
        return "Balances";
    }

    @Override
    public Feather icon() {
        return Feather.ALIGN_LEFT;
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Balance of flow over all parts", NewReading::lacksFlow, NewReading::balance));
    }

    @Override
    public String sign(Reading reading) {
        return ((BalanceOf) reading.ask()).positive();
    }

    @Override
    public ReadingPane pane(Panes panes, Reading reading) {
        return panes.of(BalancePane.class, BalancePane::new);
    }
}
