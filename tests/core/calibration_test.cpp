/// Open, short and load take an instrument's own errors away, and tell when they were not what they should be.
#include "core/trim/as_built.h"
#include "core/trim/calibration.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace vetchling {
namespace {

std::vector<double> range(double from, double to, int points)
{
    std::vector<double> f;
    for (int i = 0; i < points; ++i)
        f.push_back(from + (to - from) * i / (points - 1));
    return f;
}

/// What a box in front of the plug makes of true reflections, without noise.
RawSweep through(const std::function<ErrorTerms(double)>& box, const std::vector<double>& frequency,
                 const std::function<Complex(double)>& actual)
{
    RawSweep raw{frequency, {}};
    for (double f : frequency)
        raw.reflection.push_back(box(f).raw(actual(f)));
    return raw;
}

std::function<Complex(double)> standard(Standard which, Standards standards = {})
{
    return [=](double f) { return reflectionOf(which, standards, f); };
}

Result<Calibration> calibrated(const std::function<ErrorTerms(double)>& box, const std::vector<double>& f, Standards standards = {})
{
    return Calibration::from(through(box, f, standard(Standard::Open, standards)), through(box, f, standard(Standard::Short, standards)),
                             through(box, f, standard(Standard::Load, standards)), standards);
}

Complex knownLoad(double f) { return (Complex(23.0, -61.0 + 1e-5 * f) - 50.0) / (Complex(23.0, -61.0 + 1e-5 * f) + 50.0); }

// Error boxes of any size, with standards that are not ideal: the load comes back to a part in a million.
TEST(Calibration, RecoversAKnownLoadThroughAKnownBox)
{
    std::mt19937 random(7);
    std::uniform_real_distribution<double> even(-1.0, 1.0);
    for (int i = 0; i < 40; ++i) {
        const Complex e00{0.3 * even(random), 0.3 * even(random)}, e11{0.3 * even(random), 0.3 * even(random)};
        const double lead = 3.0 * std::abs(even(random));
        const auto box = [=](double f) { return ErrorTerms{e00, e11, 0.9 * std::exp(Complex(0.0, -4.0 * pi * f * lead / 2e8))}; };
        const Standards standards{1e-12 * std::abs(even(random)), 1e-9 * std::abs(even(random)), 50.0 + 2.0 * even(random)};
        const auto f = range(6.8e6, 7.4e6, 31);
        const auto calibration = calibrated(box, f, standards);
        ASSERT_TRUE(calibration.ok()) << calibration.firstFault();
        const auto sweep = calibration->correct(through(box, f, knownLoad));
        ASSERT_TRUE(sweep.ok()) << sweep.firstFault();
        for (const MeasuredPoint& p : sweep->points) {
            const Complex g = (*p.impedance - 50.0) / (*p.impedance + 50.0);
            ASSERT_LT(std::abs(g - knownLoad(p.frequency)), 1e-6) << i;
        }
    }
}

TEST(Calibration, OfAGoodInstrumentHasNoDoubts)
{
    InstrumentFaults faults;
    std::mt19937 random(3);
    for (const auto& f : {range(1.8e6, 2.0e6, 41), range(6.8e6, 7.4e6, 61), range(28e6, 29.7e6, 101)}) {
        const auto read = [&](Standard which) {
            std::vector<Complex> g;
            for (double one : f)
                g.push_back(reflectionOf(which, {}, one));
            return rawSweepOf(faults, f, g, random);
        };
        const auto calibration = Calibration::from(read(Standard::Open), read(Standard::Short), read(Standard::Load));
        ASSERT_TRUE(calibration.ok());
        EXPECT_TRUE(calibration->signs().empty()) << calibration->signs().front().words.english();
        const auto back = calibration->correct(read(Standard::Load));
        for (const MeasuredPoint& p : back->points)
            EXPECT_LT(p.swr, 1.005);
        EXPECT_TRUE(signsOf(*back).empty());
    }
}

struct Slip {
    const char* name;
    CalibrationDoubt doubt;
    std::function<Complex(double)> open, shorted, load;
};

TEST(Calibration, TellsABadOne)
{
    const auto good = [](Standard s) { return standard(s); };
    const auto touched = [](double f) {
        const Complex y = Complex(0.0, 2.0 * pi * f * 120e-12 * 50.0) + 0.25;
        return (1.0 - y) / (1.0 + y);
    };
    const Slip slips[] = {
        {"the short left on", CalibrationDoubt::SameTwice, good(Standard::Short), good(Standard::Short), good(Standard::Load)},
        {"a hand on the open", CalibrationDoubt::OpenTouched, touched, good(Standard::Short), good(Standard::Load)},
        {"150 ohm for the load", CalibrationDoubt::LoadReflects, good(Standard::Open), good(Standard::Short),
         [](double) { return Complex(0.5); }},
        {"open and short exchanged", CalibrationDoubt::Swapped, good(Standard::Short), good(Standard::Open), good(Standard::Load)},
    };
    const auto box = [](double f) { return errorTermsOf({}, f); };
    const auto f = range(6.5e6, 7.7e6, 61);
    for (const Slip& slip : slips) {
        const auto calibration = Calibration::from(through(box, f, slip.open), through(box, f, slip.shorted), through(box, f, slip.load));
        if (!calibration) { // nothing at all can be made of two equal ones
            EXPECT_EQ(slip.doubt, CalibrationDoubt::SameTwice);
            EXPECT_NE(calibration.firstFault().find("the same"), std::string::npos);
            continue;
        }
        ASSERT_EQ(calibration->signs().size(), 1u) << slip.name;
        EXPECT_EQ(calibration->signs().front().doubt, slip.doubt) << slip.name;
        EXPECT_GT(calibration->signs().front().words.english().size(), 40u);
    }
}

TEST(Calibration, HoldsForItsRangeOnly)
{
    const auto box = [](double f) { return errorTermsOf({}, f); };
    const auto calibration = calibrated(box, range(7.0e6, 7.2e6, 11));
    ASSERT_TRUE(calibration.ok());
    EXPECT_TRUE(calibration->correct(through(box, range(7.05e6, 7.15e6, 33), knownLoad)).ok());
    const auto beyond = calibration->correct(through(box, range(7.05e6, 7.35e6, 33), knownLoad));
    ASSERT_FALSE(beyond.ok());
    EXPECT_NE(beyond.firstFault().find("calibrate again"), std::string::npos);
    // between its points the terms are interpolated: a lead of a metre changes little over 20 kHz
    const auto between = calibration->correct(through(box, range(7.01e6, 7.19e6, 19), knownLoad));
    for (const MeasuredPoint& p : between->points)
        EXPECT_LT(std::abs((*p.impedance - 50.0) / (*p.impedance + 50.0) - knownLoad(p.frequency)), 1e-5);
}

TEST(Calibration, RefusesWhatDoesNotBelongTogether)
{
    const auto box = [](double f) { return errorTermsOf({}, f); };
    const auto f = range(7.0e6, 7.2e6, 11), other = range(7.0e6, 7.3e6, 11);
    EXPECT_NE(Calibration::from(through(box, f, standard(Standard::Open)), through(box, other, standard(Standard::Short)),
                                through(box, f, standard(Standard::Load)))
                  .firstFault()
                  .find("same range"),
              std::string::npos);
    EXPECT_FALSE(Calibration::from({}, {}, {}).ok());
}

// More than all comes back where the calibration is another cable's.
TEST(Calibration, SeesWhenItIsNotTheSweeps)
{
    const auto box = [](double f) { return errorTermsOf({}, f); };
    const auto f = range(6.8e6, 7.4e6, 31);
    const auto calibration = calibrated(box, f);
    const auto hotter = [&](double one) {
        ErrorTerms t = box(one);
        t.tracking *= 1.2;
        return t;
    };
    const auto sweep = calibration->correct(through(hotter, f, [](double) { return Complex(0.98); }));
    ASSERT_EQ(signsOf(*sweep).size(), 1u);
    EXPECT_EQ(signsOf(*sweep).front().doubt, CalibrationDoubt::MoreComesBack);
}

} // namespace
} // namespace vetchling
