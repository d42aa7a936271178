<?php

declare(strict_types=1);

namespace App\Models;

use App\Rulings\FindingGroup;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;

/**
 * How the findings of a pattern or of a row class are ruled on: kept beside the tally, so that no screen counts findings.
 *
 * @property string $group the name of its group
 * @property int $findings
 * @property int $expected
 * @property int $defect
 * @property int $ask
 */
final class StandingCount extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    public function group(): FindingGroup
    {
        return FindingGroup::named($this->group);
    }

    public function open(): int
    {
        return $this->findings - $this->expected - $this->defect - $this->ask;
    }

    /** @param Collection<int, self> $counts of one tally */
    public static function openOf(Collection $counts): int
    {
        return (int) $counts->sum(static fn(self $count): int => $count->open());
    }
}
