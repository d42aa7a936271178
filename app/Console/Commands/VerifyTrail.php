<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Actions\Access\TrailChain;
use App\Actions\Retention\PurgeTrailWords;
use Carbon\CarbonImmutable;
use Illuminate\Console\Command;

/** Holds the trail against its chain: ends with 1 where something was changed. */
final class VerifyTrail extends Command
{
    protected $signature = 'nine-tally:trail {--verify : hold every entry against the chain}
        {--purge-words-before= : a day (2026-01-31): what entries before it say in words, and network addresses, are purged}';

    protected $description = 'Links what is not yet linked of the trail, and says whether its chain holds';

    public function handle(TrailChain $chain, PurgeTrailWords $purgeWords): int
    {
        $day = $this->option('purge-words-before');
        if (is_string($day)) {
            return $this->purge($day, $purgeWords);
        }
        if ($this->option('verify') !== true) {
            $linked = $chain->link(all: true);
            $this->line("{$linked} entries linked.");

            return self::SUCCESS;
        }
        ['linked' => $linked, 'waiting' => $waiting, 'purged' => $purged, 'broken' => $broken] = $chain->verify();
        $this->line("{$linked} entries in the chain, {$waiting} not yet linked, {$purged} of which the words were purged.");
        $this->line($broken ?? 'The chain holds.');

        return $broken === null ? self::SUCCESS : self::FAILURE;
    }

    private function purge(string $day, PurgeTrailWords $purgeWords): int
    {
        $before = CarbonImmutable::canBeCreatedFromFormat($day, 'Y-m-d') ? CarbonImmutable::parse($day, 'UTC') : null;
        if ($before === null || $before->isFuture()) {
            $this->error('Name a day that is over, such as 2026-01-31.');

            return self::FAILURE;
        }
        $this->line("The words of {$purgeWords($before)} entries are purged; the chain holds without them.");

        return self::SUCCESS;
    }
}
