#pragma once
/// An old meter to be read: a needle, a knob that sets it to its mark, forward or reflected, and three channels of the band.

#include "app/document/meter_desk.h"
#include "app/view/context.h"

#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QWidget>

namespace vetchling::app {

class MeterBox : public QWidget {
    Q_OBJECT
public:
    MeterBox(ViewContext& context, MeterDesk& desk, QWidget* parent);
    /// Low, middle and high, Hz.
    void setChannels(const std::vector<double>& channels);
    void refresh();

signals:
    /// The instrument has to be started, and told how the antenna hangs.
    void wanted();
    /// A channel was read.
    void read(double frequency, double swr);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void ask();
    void take();
    ViewContext& m_context;
    MeterDesk& m_desk;
    std::vector<double> m_frequencies{0.0, 0.0, 0.0};
    std::vector<QPushButton*> m_channels;
    QPushButton *m_direction, *m_take;
    QSlider* m_knob;
    QLabel* m_said;
    std::size_t m_channel = 1;
    double m_set = 0.0; ///< where the needle stood for forward power on this channel; 0: not set
};

} // namespace vetchling::app
