/// What the Feed page says, sentence by sentence, and the row of symbols it draws.
#include "app/document/feed_desk.h"
#include "app/stages/feed/chain_drawing.h"
#include "app/view/feed_words.h"
#include "app/view/finding_words.h"
#include "core/advice/feed_findings.h"
#include "core/files/design_file.h"
#include "tests/app/app_fixture.h"

#include <QPicture>

namespace vetchling::app {
namespace {

ChainPart partOf(const char* kind, std::map<std::string, double> values = {})
{
    ChainPart part;
    part.id = kind;
    part.kind = kind;
    part.values = std::move(values);
    return part;
}

/// Two bands, worked out by hand: 40 m matched, 10 m far off.
study::FeedReport reportOf(const std::vector<ChainPart>& parts, double power = 100.0)
{
    study::FeedBasis basis;
    study::FeedBand forty, ten;
    forty.band = "forty";
    forty.name = "40 m";
    forty.frequency = 7.1e6;
    forty.port = {50, 0};
    forty.gain = 2.0;
    forty.against.gain = 0.0;
    ten.band = "ten";
    ten.name = "10 m";
    ten.frequency = 28.5e6;
    ten.port = {900, -700};
    ten.gain = 6.0;
    ten.against.gain = 5.0;
    basis.bands = {forty, ten};
    return study::feedReport(basis, parts, 0, power);
}

Design designWithBands()
{
    Design d;
    WantedBand forty, ten;
    forty.id = "forty";
    forty.band = {"40 m", 7.0e6, 7.2e6};
    ten.id = "ten";
    ten.band = {"10 m", 28.0e6, 29.7e6};
    d.operation.bands = {forty, ten};
    return d;
}

TEST(FeedWords, FiguresHaveTheirUnitsAndNoFalseDigits)
{
    EXPECT_EQ(feed::decibelWords(0.456), QStringLiteral("0.46 dB"));
    EXPECT_EQ(feed::decibelWords(12.34, 1), QStringLiteral("12.3 dB"));
    EXPECT_EQ(feed::decibelWords(500.0), QStringLiteral("over 60 dB"));
    EXPECT_EQ(feed::decibelWords(-1e-12), QStringLiteral("0.00 dB"));
    EXPECT_EQ(feed::signedWords(1.26), QStringLiteral("+1.3 dB"));
    EXPECT_EQ(feed::signedWords(-2.94), QStringLiteral("−2.9 dB"));
    EXPECT_EQ(feed::signedWords(-0.01), QStringLiteral("0.0 dB"));
    EXPECT_EQ(feed::wattWords(3.14), QStringLiteral("3.1 W"));
    EXPECT_EQ(feed::wattWords(81.7), QStringLiteral("82 W"));
    EXPECT_EQ(feed::voltWords(460.2), QStringLiteral("460 V"));
    EXPECT_EQ(feed::voltWords(1234.0), QStringLiteral("1.2 kV"));
    EXPECT_EQ(feed::ohmWords(75.0), QStringLiteral("75 Ω"));
    EXPECT_EQ(feed::ohmWords(1900.0), QStringLiteral("1.9 kΩ"));
    EXPECT_EQ(feed::shortImpedance({2770, 645}), QStringLiteral("2.8k + j645 Ω"));
    EXPECT_EQ(feed::shortImpedance({34, -2844}), QStringLiteral("34 − j2.8k Ω"));
}

TEST(FeedWords, PartsAreNamedByWhatTellsThemApart)
{
    const units::System metric = units::System::Metric;
    EXPECT_EQ(feed::partName(partOf(part::line)), QStringLiteral("coax"));
    EXPECT_EQ(feed::partName(partOf(part::line, {{"balanced", 1}})), QStringLiteral("open-wire line"));
    EXPECT_EQ(feed::partFigure(partOf(part::transformer, {{"ratio", 49}}), metric), QStringLiteral("49 : 1"));
    EXPECT_EQ(feed::partFigure(partOf(part::choke), metric), QStringLiteral("at the feedpoint"));
    EXPECT_EQ(feed::partFigure(partOf(part::choke, {{"at_m", 3.2}}), metric), QStringLiteral("at 3.20 m"));
    EXPECT_EQ(feed::partFigure(partOf(part::line, {{"length_m", 18}}), metric), QStringLiteral("18.0 m"));
    EXPECT_TRUE(feed::partFigure(partOf(part::line, {{"length_m", 18}}), units::System::Imperial).contains(QStringLiteral("59 ft")));
    EXPECT_EQ(feed::partFigure(partOf(part::tuner, {{"place", 1}}), metric), QStringLiteral("indoors"));
    EXPECT_EQ(feed::partFigure(partOf(part::lump, {{"loss_dB", 1.5}, {"loss_from_dB", 0.5}, {"loss_to_dB", 3}}), metric),
              QStringLiteral("0.5 to 3 dB"));
    EXPECT_EQ(feed::basisWords(Basis::Measured), QStringLiteral("measured"));
}

TEST(FeedWords, TheSentenceAlreadySaysTheAnswer)
{
    const ChainPart coax = partOf(part::line, {{"length_m", 30}, {"k1_dB_per_100m", 1.2}});
    const study::FeedReport report = reportOf({coax});
    const QString words = feed::lossSentence(report, QStringLiteral("a vertical"));
    EXPECT_TRUE(words.startsWith(QStringLiteral("Loses 1.0 dB on the 40 m band and "))) << words.toStdString();
    EXPECT_TRUE(words.endsWith(QStringLiteral("Ahead of a vertical only on 40 m."))) << words.toStdString();
    EXPECT_EQ(feed::rowSentence(report.rows[0], report), QStringLiteral("40 m: 1.0 dB ahead."));
    const study::FeedReport bare = reportOf({});
    const QString behind = feed::rowSentence(bare.rows[1], bare);
    EXPECT_TRUE(behind.contains(QStringLiteral("the radio puts in only"))) << behind.toStdString();
    const ChainPart tuner = partOf(part::tuner, {{"range_swr", 0}});
    const study::FeedReport tuned = reportOf({coax, tuner});
    const QString lossy = feed::rowSentence(tuned.rows[1], tuned);
    EXPECT_TRUE(lossy.contains(QStringLiteral("dB behind; the coax takes"))) << lossy.toStdString();
    const study::FeedReport straight = reportOf({tuner});
    EXPECT_TRUE(feed::lossSentence(straight, QStringLiteral("a vertical")).endsWith(QStringLiteral("Ahead of a vertical everywhere.")));
    study::FeedReport nothing = reportOf({});
    nothing.rows.clear();
    EXPECT_TRUE(feed::lossSentence(nothing, QString()).contains(QStringLiteral("Bands page")));
}

TEST(FeedWords, BadChainsAreSaidWithWhatToDo)
{
    const Design design = designWithBands();
    const auto saidOf = [&](const std::vector<ChainPart>& parts, double power = 100.0, double cutFor = 7.1e6) {
        const Antenna antenna = newAntenna(*shapes::findFamily("dipole"), cutFor);
        const study::FeedReport report = reportOf(parts, power);
        QString all;
        for (const advice::Finding& f : advice::feedFindings(design, antenna, report))
            if (f.open() && f.code != std::string("line"))
                all += findingSentence(f, units::System::Metric) + QLatin1Char('\n');
        return all;
    };
    const ChainPart coax = partOf(part::line, {{"length_m", 20}}), tuner = partOf(part::tuner, {{"range_swr", 3}});
    const QString usual = saidOf({coax, tuner}, 100.0, 28.5e6);
    EXPECT_TRUE(usual.contains(QStringLiteral("Nothing keeps current off the coax"))) << usual.toStdString();
    EXPECT_TRUE(usual.contains(QStringLiteral("on the coax on 10 m"))) << usual.toStdString();
    EXPECT_TRUE(usual.contains(QStringLiteral("does not tune 10 m"))) << usual.toStdString();
    const QString high = saidOf({partOf(part::transformer, {{"ratio", 49}}), coax});
    EXPECT_TRUE(high.contains(QStringLiteral("49 : 1 leaves only 1 Ω on 40 m"))) << high.toStdString();
    EXPECT_TRUE(saidOf({partOf(part::line, {{"balanced", 1}})}).contains(QStringLiteral("a balun or a balanced tuner belongs between")));
    EXPECT_TRUE(saidOf({partOf(part::choke, {{"loss_dB", 1}, {"rating_W", 5}})}).contains(QStringLiteral("it stands 5 W")));
    EXPECT_TRUE(saidOf({}, 1000.0).contains(QStringLiteral("nobody may reach the feedpoint")));
    EXPECT_TRUE(saidOf({partOf(part::choke)}, 10.0).isEmpty());
}

TEST(FeedWords, WhatIsGuessedIsTriedAtBothEnds)
{
    const Design design = designWithBands();
    const auto lump = [](double from, double to) {
        return std::vector{partOf(part::lump, {{"loss_dB", 0.5 * (from + to)}, {"loss_from_dB", from}, {"loss_to_dB", to}}),
                           partOf(part::tuner, {{"range_swr", 0}})};
    };
    EXPECT_TRUE(feed::guessSentence(reportOf(lump(0.1, 0.4)), design).contains(QStringLiteral("holds over the whole range")));
    EXPECT_TRUE(feed::guessSentence(reportOf(lump(0.5, 3.0)), design).contains(QStringLiteral("On 40 m and 10 m what is guessed decides")));
    EXPECT_TRUE(feed::guessSentence(reportOf({partOf(part::choke)}), design).isEmpty());
    EXPECT_TRUE(feed::unfitSentence(reportOf({partOf(part::lump, {{"loss_dB", 4}})}), design).contains(QStringLiteral("40 m and 10 m")));
    EXPECT_TRUE(feed::unfitSentence(reportOf({partOf(part::tuner, {{"range_swr", 0}})}), design).isEmpty());
}

TEST(FeedWords, ABetterLineIsProposedOnlyWhereItIsWorthIt)
{
    const LineType worse{"a", "thin stuff", "", false, 50, 0.66, 3.0, 0.01, 1.0},
        better{"b", "thick stuff", "", false, 50, 0.66, 0.3, 0.001, 4.0}, other{"c", "open stuff", "", true, 450, 0.9, 0.05, 0.0, 1.0};
    study::FeedBasis basis;
    study::FeedBand band;
    band.band = "forty";
    band.name = "40 m";
    band.frequency = 7.1e6;
    band.port = 50.0;
    basis.bands = {band};
    ChainPart line = partOf(part::line, {{"length_m", 30}});
    const auto adviceWith = [&](const LineType& has) {
        ChainPart now = line;
        takeType(now, has);
        const auto rows = study::linesCompared(basis, {now}, 0, {}, {worse, better, other});
        return feed::adviceSentence(study::feedReport(basis, {now}, 0, 100.0), rows, units::System::Metric);
    };
    EXPECT_TRUE(adviceWith(worse).startsWith(QStringLiteral("30.0 m of thick stuff would gain"))) << adviceWith(worse).toStdString();
    EXPECT_TRUE(adviceWith(better).contains(QStringLiteral("next to nothing"))) << adviceWith(better).toStdString();
}

class DrawingTest : public WindowTest {};

TEST_F(DrawingTest, TheRowOfSymbolsKnowsItsPlaces)
{
    document().editAntenna(QStringLiteral("chain"), {}, [](Antenna& a) {
        ownChain(a).parts = {partOf(part::choke), partOf(part::line), partOf(part::tuner)};
    });
    ChainDrawing drawing;
    drawing.take(document(), nullptr, {});
    drawing.layOut({0.0, 0.0, 750.0, ChainDrawing::height});
    ASSERT_EQ(drawing.places().size(), 5u); // antenna, three parts, radio
    EXPECT_EQ(drawing.places().front().name, QStringLiteral("antenna"));
    EXPECT_EQ(drawing.places().back().name, QStringLiteral("radio"));
    EXPECT_EQ(drawing.movable(), (std::vector<Id>{part::choke, part::line, part::tuner}));
    for (std::size_t i = 1; i < 4; ++i) {
        EXPECT_EQ(drawing.partAt(drawing.centreOf(i)), drawing.places()[i].part);
        EXPECT_EQ(drawing.placeAt(drawing.centreOf(i)), int(i) - 1);
        EXPECT_FALSE(drawing.tipAt(drawing.centreOf(i)).isEmpty());
        EXPECT_FALSE(drawing.boxOf(i).intersects(drawing.boxOf(i - 1)));
    }
    EXPECT_EQ(drawing.partAt({-40.0, 10.0}), Id());
    EXPECT_EQ(drawing.placeAt({-40.0, 10.0}), 0);
    EXPECT_EQ(drawing.placeAt({2000.0, 10.0}), 2);
    QPicture picture;
    QPainter painter(&picture);
    Sketch sketch(painter, window().theme());
    drawing.paint(sketch, part::line, {}, std::pair<Id, QPointF>{part::line, {500.0, 20.0}});
    painter.end();
    EXPECT_GT(picture.size(), 500u);
}

TEST_F(DrawingTest, EveryKindHasASymbolOfItsOwn)
{
    std::set<QByteArray> seen;
    for (const PartKind* kind : partKinds()) {
        document().editAntenna(QStringLiteral("chain"), {}, [&](Antenna& a) { ownChain(a).parts = {partOf(kind->id().c_str())}; });
        ChainDrawing drawing;
        drawing.take(document(), nullptr, {});
        drawing.layOut({0.0, 0.0, 300.0, ChainDrawing::height});
        QImage image(300, 50, QImage::Format_RGB32); // the symbols, not the words below
        image.fill(Qt::white);
        QPainter painter(&image);
        Sketch sketch(painter, window().theme());
        drawing.paint(sketch, {}, {}, std::nullopt);
        painter.end();
        seen.insert(QByteArray(reinterpret_cast<const char*>(image.constBits()), image.sizeInBytes()));
    }
    EXPECT_EQ(seen.size(), partKinds().size());
}

} // namespace
} // namespace vetchling::app
