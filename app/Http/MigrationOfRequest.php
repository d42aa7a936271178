<?php

declare(strict_types=1);

namespace App\Http;

use App\Models\CorrectionSet;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\EyeCheck;
use App\Models\KeptFilter;
use App\Models\Migration;
use App\Models\Pack;
use App\Models\PackOrder;
use App\Models\Receipt;
use App\Models\Report;
use App\Models\ReportLink;
use App\Models\ReportOrder;
use App\Models\Ruling;
use App\Models\Run;
use App\Models\SourceConnection;
use App\Models\Tally;
use App\Models\Webhook;
use Illuminate\Http\Request;

/** In which migration that stands which the address of a request names. */
final readonly class MigrationOfRequest
{
    /** @return Migration|null null where the address names nothing of a migration */
    public static function find(Request $request): ?Migration
    {
        foreach ($request->route()?->parameters() ?? [] as $named) {
            $migration = match (true) {
                $named instanceof Migration => $named,
                $named instanceof SourceConnection, $named instanceof Webhook => $named->migration,
                $named instanceof Dataset, $named instanceof Tally => $named->migration,
                $named instanceof Delivery, $named instanceof Receipt, $named instanceof Run => $named->dataset->migration,
                $named instanceof KeptFilter, $named instanceof CorrectionSet => $named->dataset->migration,
                $named instanceof Ruling, $named instanceof Report, $named instanceof ReportOrder => $named->tally->migration,
                $named instanceof EyeCheck, $named instanceof Pack, $named instanceof PackOrder, $named instanceof ReportLink => $named
                    ->tally->migration,
                default => null,
            };
            if ($migration !== null) {
                return $migration;
            }
        }

        return null;
    }
}
