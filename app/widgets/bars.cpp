#include "app/widgets/bars.h"

#include "app/view/sketch.h"

#include <QPainter>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int barHeight = 34;

} // namespace

CompareBars::CompareBars(const Theme& theme, QWidget* parent) : QWidget(parent), m_theme(theme) {}

void CompareBars::setRows(std::vector<Row> rows)
{
    m_rows = std::move(rows);
    QStringList words;
    for (const Row& r : m_rows)
        words << r.name + QStringLiteral(" ") + r.figure;
    setAccessibleName(words.join(QStringLiteral(", ")));
    setFixedHeight(sizeHint().height());
    update();
}

QSize CompareBars::sizeHint() const { return {268, barHeight * int(m_rows.size())}; }

void CompareBars::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    Sketch sketch(painter, m_theme);
    const Colours& c = m_theme.colours();
    double lowest = HUGE_VAL, highest = 0.0;
    for (const Row& r : m_rows)
        if (r.value > 0.0)
            lowest = std::min(lowest, r.value), highest = std::max(highest, r.value);
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
        const double top = barHeight * double(i);
        sketch.text({0, top + 2}, m_rows[i].name, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        sketch.text({double(width()), top + 1}, m_rows[i].figure, Qt::AlignRight | Qt::AlignTop, {c.ink, 13, true});
        if (!(m_rows[i].value > 0.0))
            continue;
        // The bar's visible part starts at 90 % of the shortest, so that percents are seen.
        const double from = 0.9 * lowest, part = std::clamp((m_rows[i].value - from) / std::max(1e-12, highest - from), 0.02, 1.0);
        painter.setPen(Qt::NoPen);
        painter.setBrush(m_rows[i].colour);
        painter.drawRoundedRect(QRectF(0, top + 21, part * width(), 6), 3, 3);
    }
}

ShareBar::ShareBar(const Theme& theme, QWidget* parent) : QWidget(parent), m_theme(theme) { setFixedHeight(42); }

void ShareBar::setShares(std::vector<Share> shares, double power)
{
    m_shares = std::move(shares);
    m_power = power;
    QStringList words;
    for (const Share& s : m_shares)
        words << QStringLiteral("%1 W %2").arg(s.part * power, 0, 'f', 0).arg(s.name);
    setAccessibleName(words.join(QStringLiteral(", ")));
    update();
}

void ShareBar::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    Sketch sketch(painter, m_theme);
    const Colours& c = m_theme.colours();
    constexpr double gap = 8.0; // between words
    double sum = 0.0, x = 0.0;
    std::vector<QString> words;
    std::vector<double> left, wide;
    for (const Share& s : m_shares)
        sum += std::max(0.0, s.part);
    for (std::size_t i = 0; i < m_shares.size(); ++i) {
        const Share& s = m_shares[i];
        const double w = sum > 0.0 ? width() * std::max(0.0, s.part) / sum : 0.0;
        painter.fillRect(QRectF(x, 0, std::max(0.0, w - 1), 16), s.colour);
        const double watts = s.part * m_power;
        if (watts >= 0.05) {
            words.push_back(QStringLiteral("%1 %2").arg(watts, 0, 'f', watts < 9.95 ? 1 : 0).arg(s.name));
            wide.push_back(m_theme.typeset(words.back(), 12).size.width());
            left.push_back(x);
        }
        x += w;
    }
    double limit = width(); // from the right, so that small shares at the end keep apart
    for (std::size_t i = words.size(); i-- > 0;) {
        left[i] = std::min(left[i], limit - wide[i]);
        limit = left[i] - gap;
    }
    double free = 0.0; // then from the left, for small shares at the start
    for (std::size_t i = 0; i < words.size(); ++i) {
        left[i] = std::max(left[i], free);
        free = left[i] + wide[i] + gap;
        sketch.text({left[i], 21}, words[i], Qt::AlignLeft | Qt::AlignTop, {c.ink, 12});
    }
}

} // namespace vetchling::app
