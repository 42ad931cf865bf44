package lane.formats.ledger;

import java.util.Map;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Verdict;
import lane.reading.Reading;
import lane.study.Source;
import lane.study.Study;

/**
 * The checks as a test report: a case for each judged lane. Out is a failure, no data an error, undecided skipped with its reason; a
 * deviation that somebody accepted is told in the case and stays what it is.
 */
final class JUnitXml {
    private JUnitXml() {}

    static String of(Export export) {
        Study study = export.results().study();
        var cases = new StringBuilder();
        int[] count = new int[4];
        for (Check check : study.checks()) {
            CheckResult result = export.results().checks().get(check.id());
            if (result == null) {
                continue;
            }
            String name = study.reading(check.reading()).map(Reading::name).orElse(check.reading()) + ", "
                    + check.rule().measure();
            boolean any = false;
            for (Map.Entry<String, CheckResult.Lane> e : result.lanes().entrySet()) {
                if (e.getValue().verdict() instanceof Verdict v) {
                    String lane = study.source(e.getKey()).map(Source::name).orElse(e.getKey());
                    one(study, check, name + ", " + lane, v, e.getValue().sentence(), count, cases);
                    any = true;
                }
            }
            if (!any) {
                one(study, check, name, result.verdict(), result.why(), count, cases);
            }
        }
        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<testsuite name=\"" + Html.attribute(study.name())
                + "\" tests=\"" + count[0] + "\" failures=\"" + count[1] + "\" errors=\"" + count[2] + "\" skipped=\""
                + count[3] + "\" time=\"0\">\n" + cases + "</testsuite>\n";
    }

    private static void one(
            Study study, Check check, String name, Verdict verdict, String why, int[] count, StringBuilder out) {
        String group = check.group().isBlank() ? study.name() : study.name() + "." + check.group();
        out.append("  <testcase classname=\"")
                .append(Html.attribute(group))
                .append("\" name=\"")
                .append(Html.attribute(name))
                .append("\" time=\"0\"");
        count[0]++;
        String said = check.decision() == null ? "" : " " + check.decision().words();
        switch (verdict) {
            case WITHIN ->
                out.append(
                        said.isBlank()
                                ? "/>\n"
                                : ">\n    <system-out>" + Html.text(said.strip()) + "</system-out>\n  </testcase>\n");
            case OUT -> {
                count[1]++;
                told("failure", " type=\"out\"", why + said, out);
            }
            case UNDECIDED -> {
                count[3]++;
                told("skipped", "", "undecided: " + why + said, out);
            }
            case NO_DATA -> {
                count[2]++;
                told("error", " type=\"no data\"", why + said, out);
            }
        }
    }

    private static void told(String element, String type, String why, StringBuilder out) {
        out.append(">\n    <")
                .append(element)
                .append(" message=\"")
                .append(Html.attribute(why))
                .append('"')
                .append(type)
                .append("/>\n  </testcase>\n");
    }
}
