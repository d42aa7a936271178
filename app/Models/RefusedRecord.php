<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Wording\Sentences;

/**
 * @property int $number
 * @property int $part of the delivery, from 1
 * @property int $line
 * @property RefusalReason $reason
 * @property array<string, string|int> $facts as the reason names them
 * @property string $raw
 */
final class RefusedRecord extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    protected $casts = ['reason' => RefusalReason::class, 'facts' => 'array'];

    public function sentence(): string
    {
        return (new Sentences)->refusal($this->reason, $this->facts);
    }
}
