#include "app/stages/trim/meter_box.h"

#include "core/trim/readings.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

#include <cmath>

namespace vetchling::app {
namespace {

constexpr int faceHeight = 92, knobSteps = 400;
constexpr double atMark = 0.04;                 // of the scale, that the needle may be off it
constexpr double swing = 1.1, fullSwing = 1.15; // rad either side of upright; of the scale

void setStrong(QPushButton* button, bool strong)
{
    if (button->property("strong").toBool() == strong)
        return;
    button->setProperty("strong", strong);
    button->style()->unpolish(button);
    button->style()->polish(button);
}

} // namespace

MeterBox::MeterBox(ViewContext& context, MeterDesk& desk, QWidget* parent)
    : QWidget(parent), m_context(context), m_desk(desk), m_direction(new QPushButton(tr("Forward"), this)),
      m_take(new QPushButton(tr("Take it"), this)), m_knob(new QSlider(Qt::Horizontal, this)), m_said(new QLabel(this))
{
    setAccessibleName(tr("Power meter, stand-in"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, faceHeight + 4, 0, 0);
    layout->setSpacing(5);
    auto* channels = new QHBoxLayout;
    channels->setSpacing(6);
    const QString names[] = {tr("Low"), tr("Middle"), tr("High")};
    const char* const objects[] = {"meterLow", "meterMiddle", "meterHigh"};
    for (std::size_t i = 0; i < 3; ++i) {
        auto* button = new QPushButton(names[i], this);
        button->setObjectName(QLatin1String(objects[i]));
        button->setProperty("small", true);
        connect(button, &QPushButton::clicked, this, [this, i] {
            m_channel = i;
            m_set = 0.0;
            m_direction->setChecked(false);
            ask();
        });
        channels->addWidget(button, 1);
        m_channels.push_back(button);
    }
    layout->addLayout(channels);
    m_knob->setObjectName(QStringLiteral("meterKnob"));
    m_knob->setAccessibleName(tr("Sensitivity"));
    m_knob->setRange(0, knobSteps);
    m_knob->setValue(knobSteps / 40);
    connect(m_knob, &QSlider::valueChanged, this, [this] {
        m_set = 0.0;
        ask();
    });
    layout->addWidget(m_knob);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    m_direction->setObjectName(QStringLiteral("meterDirection"));
    m_direction->setProperty("small", true);
    m_direction->setCheckable(true);
    connect(m_direction, &QPushButton::toggled, this, [this](bool reflected) {
        m_direction->setText(reflected ? tr("Reflected") : tr("Forward"));
        if (reflected && std::abs(m_desk.needle() - 1.0) <= atMark)
            m_set = m_desk.needle();
        ask();
    });
    m_take->setObjectName(QStringLiteral("meterTake"));
    m_take->setProperty("small", true);
    connect(m_take, &QPushButton::clicked, this, &MeterBox::take);
    row->addWidget(m_direction, 1);
    row->addWidget(m_take, 1);
    layout->addLayout(row);
    m_said->setObjectName(QStringLiteral("meterSaid"));
    m_said->setProperty("role", "note");
    m_said->setWordWrap(true);
    layout->addWidget(m_said);
    connect(&desk, &MeterDesk::changed, this, &MeterBox::refresh);
    refresh();
}

void MeterBox::setChannels(const std::vector<double>& channels)
{
    if (channels.size() == 3 && channels != m_frequencies) {
        m_frequencies = channels;
        m_set = 0.0;
    }
}

void MeterBox::ask()
{
    emit wanted();
    if (m_frequencies[m_channel] > 0.0)
        m_desk.read(m_frequencies[m_channel], double(m_knob->value()) / knobSteps, m_direction->isChecked());
    refresh();
}

void MeterBox::refresh()
{
    for (std::size_t i = 0; i < m_channels.size(); ++i)
        setStrong(m_channels[i], m_desk.on() && i == m_channel);
    setStrong(m_direction, m_direction->isChecked());
    m_direction->setEnabled(m_desk.on());
    m_take->setEnabled(m_desk.on() && m_direction->isChecked() && m_set > 0.0);
    m_said->setText(!m_desk.trouble().isEmpty() ? m_desk.trouble()
                    : !m_desk.on()              ? tr("Choose a channel: the stand-in sends there.")
                    : m_direction->isChecked()
                        ? (m_set > 0.0 ? tr("Read what comes back, and take it.")
                                       : tr("It was not set: turn to forward, and bring the needle to its mark first."))
                        : tr("Turn the knob until the needle stands on its mark, then turn to reflected."));
    update();
}

void MeterBox::take()
{
    const double gamma = std::min(0.999, m_desk.needle() / m_set); // the needle goes with the voltage
    const auto swr = swrOfPowers(1.0, gamma * gamma);
    if (!swr)
        return;
    emit read(m_frequencies[m_channel], *swr);
    m_direction->setChecked(false);
    m_set = 0.0;
    m_channel = (m_channel + 1) % m_channels.size();
    ask();
}

/// An own face: an arc with a mark, the part beyond it shaded.
void MeterBox::paintEvent(QPaintEvent*)
{
    const Colours& c = m_context.theme.colours();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF face(0, 0, width(), faceHeight);
    p.setPen(QPen(c.hairline, 1));
    p.setBrush(c.card);
    p.drawRoundedRect(face.adjusted(0.5, 0.5, -0.5, -0.5), 5, 5);
    const QPointF pivot(face.center().x(), face.bottom() + 16);
    const double radius = faceHeight - 8.0;
    const auto place = [&](double part, double r) {
        const double angle = -swing + 2.0 * swing * part / fullSwing;
        return QPointF(pivot.x() + r * std::sin(angle), pivot.y() - r * std::cos(angle));
    };
    QPainterPath arc(place(0.0, radius));
    for (int i = 1; i <= 60; ++i)
        arc.lineTo(place(fullSwing * i / 60, radius));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.inkSoft, 1.4));
    p.drawPath(arc);
    p.setFont(m_context.theme.font(11));
    for (double part : {0.0, 0.25, 0.5, 0.75, 1.0}) {
        p.setPen(QPen(part == 1.0 ? c.leaf : c.inkSoft, part == 1.0 ? 2.4 : 1.2));
        p.drawLine(place(part, radius - 5), place(part, radius + 3));
    }
    p.setPen(c.leaf);
    p.drawText(QRectF(place(1.0, radius + 14) - QPointF(22, 8), QSizeF(44, 16)), Qt::AlignCenter, tr("set"));
    p.setPen(QPen(c.ink, 1.8));
    p.setClipRect(face.adjusted(1, 1, -1, -1));
    p.drawLine(pivot, place(m_desk.needle(), radius - 8));
    if (m_frequencies[m_channel] > 0.0) {
        p.setPen(c.inkSoft);
        p.drawText(face.adjusted(8, 0, -8, -4), Qt::AlignLeft | Qt::AlignBottom,
                   tr("%1 MHz").arg(m_frequencies[m_channel] / 1e6, 0, 'f', 3));
    }
}

} // namespace vetchling::app
