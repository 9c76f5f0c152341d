#include "app/view/finding_words.h"

#include "app/view/words.h"

#include <QCoreApplication>

namespace vetchling::app {
namespace {

struct Words {
    Q_DECLARE_TR_FUNCTIONS(FindingWords)
};

QString capital(QString words)
{
    if (!words.isEmpty())
        words[0] = words[0].toUpper();
    return words;
}

} // namespace

QString findingTitle(const advice::Finding& finding, units::System system) { return capital(coreWords(finding.brief, system)); }

QString findingSentence(const advice::Finding& finding, units::System system)
{
    const QString words = coreWords(finding.message, system);
    if (words.isEmpty())
        return words;
    const bool begun = finding.ofPlace && finding.open() && !finding.ofSupport;
    const QString sentence = begun ? Words::tr("It %1").arg(words) : capital(words);
    return sentence.endsWith(QLatin1Char('.')) ? sentence : sentence + QLatin1Char('.');
}

QString gravityWords(advice::Gravity gravity)
{
    switch (gravity) {
    case advice::Gravity::Danger: return Words::tr("Danger");
    case advice::Gravity::Wrong: return Words::tr("Not right");
    case advice::Gravity::Next: return Words::tr("Next");
    case advice::Gravity::Done: return Words::tr("Done");
    }
    return {};
}

QString stageWords(advice::Stage stage)
{
    switch (stage) {
    case advice::Stage::Site: return Words::tr("Site");
    case advice::Stage::Shape: return Words::tr("Shape");
    case advice::Stage::Bands: return Words::tr("Bands");
    case advice::Stage::Feed: return Words::tr("Feed");
    case advice::Stage::Build: return Words::tr("Build");
    case advice::Stage::Trim: return Words::tr("Trim");
    }
    return {};
}

QString goWords(const advice::Finding& finding)
{
    const std::string view = finding.view, code = finding.code;
    return code == "trim"    ? Words::tr("Trim it")
           : view == "cut"   ? Words::tr("Cut list")
           : view == "parts" ? Words::tr("Ropes and parts")
           : view == "next"  ? Words::tr("Measure")
           : view == "log"   ? Words::tr("The log")
                             : Words::tr("Show it");
}

} // namespace vetchling::app
