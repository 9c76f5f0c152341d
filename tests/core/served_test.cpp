/// Whether a band is served: against reflection and line written down here, and alike on everything that tells of it.
#include "core/bands/served.h"
#include "core/design/design.h"
#include "core/line/part_kinds.h"
#include "core/study/feed_choices.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

/// A resonant circuit of 50 ohm in series: X = 2 Q R (f - f0)/f0.
ImpedanceAt resonant(double f0, double q, double r = 50.0)
{
    return [=](double f) { return Complex(r, 2.0 * q * r * (f - f0) / f0); };
}

WantedBand bandOf(double from, double to)
{
    WantedBand w;
    w.id = "band";
    w.band = {"band", from, to};
    w.wish = Wish::Must;
    return w;
}

ChainPart partWith(const char* kind, std::map<std::string, double> values)
{
    ChainPart p;
    p.kind = kind;
    p.values = std::move(values);
    return p;
}

ChainPart coax(double length, double decibelsAHundredMetres)
{
    return partWith(part::line, {{"length_m", length},
                                 {"impedance_ohm", 50.0},
                                 {"velocity_factor", 0.66},
                                 {"k1_dB_per_100m", decibelsAHundredMetres},
                                 {"k2_dB_per_100m", 0.0}});
}

double back(double swr) { return std::pow((swr - 1.0) / (swr + 1.0), 2); }

TEST(Served, TheRadioPutsInWhatIsNotReflectedAndFoldsBack)
{
    ServedRule never;
    never.foldbackSwr = 0.0;
    EXPECT_NEAR(takenUp(50.0, {}), 1.0, 1e-12);
    EXPECT_NEAR(takenUp(150.0, never), 0.75, 1e-12); // SWR 3: a quarter of the power comes back
    EXPECT_NEAR(takenUp(150.0, {}), 0.75 * (1.0 / 9.0) / 0.25, 1e-12);
    EXPECT_NEAR(takenUp(100.0, {}), 8.0 / 9.0, 1e-12); // just there
    for (double s : {2.5, 4.0, 9.0, 40.0}) {
        const double forward = takenUp(50.0 * s, {}) / (1.0 - back(s));
        EXPECT_NEAR(forward * back(s), back(2.0), 1e-12) << "no more comes back than at SWR 2";
    }
    EXPECT_EQ(takenUp({0.0, 30.0}, {}), 0.0);
}

TEST(Served, SharesAreCountedOverTheBandAndItsSegments)
{
    // SWR 2 of R + jX with R = 50: |G|^2 = X^2/(4R^2 + X^2) = 1/9, so X = R/sqrt(2)
    const double f0 = 7.1e6, q = 12.0, half = f0 / (2.0 * q * std::sqrt(2.0));
    const WantedBand band = bandOf(6.8e6, 7.4e6);
    const BandService service = serviceOf(portOver(resonant(f0, q), band), {}, {});
    EXPECT_NEAR(service.share, 2.0 * half / 0.6e6, 0.01);
    EXPECT_EQ(service.shareWithTuner, service.share) << "there is no tuner";
    EXPECT_NEAR(service.total(), 0.0, 1e-9);
    EXPECT_EQ(service.service, Service::Partly);
    WantedBand cw = band;
    cw.segments = {{"low", 6.8e6, 6.85e6, Wish::Must}, {"middle", 7.05e6, 7.15e6, Wish::Nice}};
    const BandService parts = serviceOf(portOver(resonant(f0, q), cw), {}, {});
    EXPECT_NEAR(parts.share, 0.25, 1e-9); // three for the must, which is past the limit, one for the nice one
    EXPECT_EQ(serviceOf(portOver(resonant(f0, q), bandOf(7.05e6, 7.15e6)), {}, {}).service, Service::Served);
    EXPECT_EQ(serviceOf(portOver(resonant(f0, q), bandOf(10.1e6, 10.15e6)), {}, {}).service, Service::No);
}

// 2026-11: "indoors would serve best: 6 of 6, 7.3 dB lost", 60 m green at 13.7 dB, thin coax above thick.
TEST(Served, LossIsNoMatch)
{
    const WantedBand band = bandOf(7.0e6, 7.2e6);
    const ImpedanceAt far = [](double) { return Complex(600.0, -300.0); };
    const ChainPart tuner = partWith(part::tuner, {{"place", part::indoors}, {"range_swr", 30.0}});
    const BandService lossy = serviceOf(portOver(far, band), {coax(60.0, 3.0), tuner}, {});
    EXPECT_EQ(lossy.shareWithTuner, 1.0) << "it is tuned";
    EXPECT_GT(lossy.total(), 3.0);
    EXPECT_EQ(lossy.service, Service::Partly);
    ServedRule patient;
    patient.lossLimit = 30.0;
    EXPECT_EQ(serviceOf(portOver(far, band), {coax(60.0, 3.0), tuner}, patient).service, Service::Served);
    study::FeedBasis basis;
    study::FeedBand b;
    b.band = b.name = "band";
    b.wish = Wish::Must;
    b.frequency = 7.1e6;
    b.port = {120.0, 10.0};
    b.across = portOver([&](double) { return b.port; }, band);
    basis.bands = {b};
    const LineType thin{"thin", "thin", "", false, 50, 0.66, 6.0, 0.0, 1.0}, thick{"thick", "thick", "", false, 50, 0.66, 0.3, 0.0, 4.0};
    ServedRule steadfast; // a radio that does not fold back: for one that does, some loss before it can bring more
    steadfast.foldbackSwr = 0.0;
    const auto rows = study::linesCompared(basis, {coax(40.0, 1.0)}, 0, steadfast, {thin, thick});
    EXPECT_TRUE(rows[2].best) << "what brings most, though the thin one shows the radio less SWR";
    EXPECT_GT(rows[2].arriving, rows[1].arriving);
    EXPECT_LT(rows[1].cells[0].swr, rows[2].cells[0].swr);
}

TEST(Served, ATunerHelpsWithinItsRange)
{
    const WantedBand band = bandOf(7.0e6, 7.2e6);
    const auto at = [](double swr) { return [=](double) { return Complex(50.0 * swr, 0.0); }; };
    const auto with = [&](double swr, double range) {
        return serviceOf(portOver(at(swr), band), {partWith(part::tuner, {{"place", part::inRadio}, {"range_swr", range}})}, {});
    };
    EXPECT_EQ(with(2.9, 3.0).service, Service::Served);
    EXPECT_EQ(with(2.9, 3.0).share, 0.0);
    EXPECT_EQ(with(2.9, 3.0).shareWithTuner, 1.0);
    EXPECT_NEAR(with(2.9, 3.0).mismatch, 0.0, 1e-6);
    EXPECT_EQ(with(3.1, 3.0).service, Service::No);
    EXPECT_NEAR(with(3.1, 3.0).mismatch, -10.0 * std::log10((1.0 - back(3.1)) * back(2.0) / back(3.1)), 1e-6);
}

// The limits are what the definition says they are, from either side.
TEST(Served, TheLimitsAreTheDefinitions)
{
    const WantedBand band = bandOf(7.0e6, 7.2e6);
    const auto under = [](double upTo) { return [=](double f) { return f <= upTo ? Complex(50.0) : Complex(500.0); }; };
    const auto serve = [&](double share, double loss) {
        return serviceOf(portOver(under(7.0e6 + share * 0.2e6), band), {partWith(part::lump, {{"loss_dB", loss}})}, {}).service;
    };
    EXPECT_EQ(serve(0.96, 2.9), Service::Served);
    EXPECT_EQ(serve(0.94, 0.0), Service::Partly);
    EXPECT_EQ(serve(0.96, 3.1), Service::Partly);
    EXPECT_EQ(serve(0.06, 0.0), Service::Partly);
    EXPECT_EQ(serve(0.03, 0.0), Service::No);
}

// 2026-11: a tuner dragged in front of the coax still said that it stands in the radio.
TEST(TunersPlace, FollowsThePart)
{
    Design design;
    Antenna a = newAntenna(shapes::dipoleFamily(), 7.1e6);
    ChainPart tuner = newPart(part::tuner), line = newPart(part::line);
    ownChain(a).parts = {line, tuner};
    ASSERT_TRUE(movePart(a, tuner.id, -1));
    EXPECT_EQ(partValue(*findPart(a, tuner.id), "place"), part::atAntenna);
    EXPECT_EQ(partValue(*findPart(a, tuner.id), "range_swr"), 10.0) << "one by itself copes with more";
    ASSERT_TRUE(movePart(a, tuner.id, 1));
    EXPECT_EQ(partValue(*findPart(a, tuner.id), "place"), part::indoors);
    moveTuner(a, tuner.id, part::inRadio);
    EXPECT_EQ(partValue(*findPart(a, tuner.id), "range_swr"), 3.0);
    EXPECT_EQ(chainParts(a).back().id, tuner.id);
    moveTuner(a, tuner.id, part::atAntenna);
    EXPECT_EQ(chainParts(a).front().id, tuner.id);
    moveTuner(a, tuner.id, part::indoors);
    EXPECT_EQ(chainParts(a).back().id, tuner.id);
}

} // namespace
} // namespace vetchling
