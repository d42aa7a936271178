<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;

/**
 * The plan while it is being worked on; a tally uses a version of it that never changes.
 *
 * @property int $dataset_id
 * @property array{formatVersion: int, key: list<array{source: string, target: string, forgives?: list<string>}>,
 *     columnPairs: list<array<string, mixed>>, leftOut: array{source: list<string>, target: list<string>}, sides?: array<string, mixed>,
 *     bridges?: list<array<string, mixed>>, demands?: array<string, array<string, mixed>>} $document  a plan's, but that the key may be
 *     empty
 */
final class PlanDraft extends Model
{
    public const CREATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'dataset_id';

    protected $guarded = [];

    protected $casts = ['document' => 'array'];

    /** What it says of one side. */
    public function rules(Side $side): SideRules
    {
        // The key may still be empty, and says nothing of sides.
        return Plan::fromJson(
            CanonicalJson::of(['key' => [['source' => '?', 'target' => '?']], 'columnPairs' => []] + $this->document),
        )->side($side);
    }

    /** @return list<string> the key by source names */
    public function keyNames(): array
    {
        return array_column($this->document['key'], 'source');
    }
}
