#pragma once
/// JSON on stdout, for the .cpp files of the commands.

#include "core/bands/served.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace vetchling::cli {

using Json = nlohmann::ordered_json;

/// "yes", "partly" or "no".
inline const char* servedWord(Service service) { return service == Service::Served ? "yes" : service == Service::Partly ? "partly" : "no"; }

inline void print(const Json& json) { fmt::print("{}\n", json.dump(1)); }

/// [real, imaginary].
inline Json pair(Complex z) { return {z.real(), z.imag()}; }

/// Adds what is judged of a band behind its chain.
inline void addService(Json& json, const BandService& service)
{
    json["share_with_tuner"] = service.shareWithTuner;
    json["loss_dB"] = service.total();
    json["mismatch_dB"] = service.mismatch;
    json["served"] = servedWord(service.service);
}

} // namespace vetchling::cli
