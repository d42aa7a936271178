<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;

/**
 * A workbook that somebody asked for: a worker writes it, and it waits until it is taken. It may be gone at any time; it can be asked for
 * again.
 *
 * @property string $id
 * @property int $user_id
 * @property int|null $dataset_id that it is made from
 * @property string $name of the file
 * @property string $state asked, written or failed
 * @property int $rows written so far
 * @property int $done of total, in a unit that belongs to what is written
 * @property int $total
 * @property string|null $problem
 */
final class Workbook extends Model
{
    use HasUuids;

    public static function askFor(User $person, int $datasetId, string $name): self
    {
        return self::query()->create(['user_id' => $person->id, 'dataset_id' => $datasetId, 'name' => $name]);
    }

    protected $guarded = [];

    protected $attributes = ['state' => 'asked', 'rows' => 0, 'done' => 0, 'total' => 0, 'problem' => null];

    protected $casts = ['user_id' => 'integer', 'rows' => 'integer', 'done' => 'integer', 'total' => 'integer'];
}
