<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What a worker found out, kept under the hash of all that decides about it. It may be removed at any time: it is then found out again.
 *
 * @property string $digest
 * @property string $kind
 * @property string $state asked, answered, failed or cancelled
 * @property int $done of total, in a unit that the question chooses
 * @property int $total
 * @property array<string, mixed>|null $content
 * @property string|null $problem
 * @property \Illuminate\Support\Carbon $updated_at
 */
final class Answer extends Model
{
    public $incrementing = false;

    protected $primaryKey = 'digest';

    protected $keyType = 'string';

    protected $guarded = [];

    protected $attributes = ['done' => 0, 'total' => 0, 'content' => null, 'problem' => null];

    protected $casts = ['content' => 'array', 'done' => 'integer', 'total' => 'integer'];

    public function isWaiting(): bool
    {
        return $this->state === 'asked';
    }

    /** @return array{isWaiting: bool, done: int, total: int, problem: string|null} */
    public function progress(): array
    {
        return ['isWaiting' => $this->isWaiting(), 'done' => $this->done, 'total' => $this->total, 'problem' => $this->problem];
    }
}
