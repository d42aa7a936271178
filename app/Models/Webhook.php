<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A program that is told of notices of a migration.
 *
 * @property int $id
 * @property int $migration_id
 * @property string $url
 * @property list<string> $kinds of notices
 * @property string $secret under which what is told is signed: encrypted where it is kept, told once
 * @property int $user_id
 * @property \Illuminate\Support\Carbon $created_at
 * @property-read Migration $migration
 */
final class Webhook extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $hidden = ['secret'];

    protected $casts = ['kinds' => 'array', 'secret' => 'encrypted'];

    /** @return BelongsTo<Migration, $this> */
    public function migration(): BelongsTo
    {
        return $this->belongsTo(Migration::class);
    }

    /** @return HasMany<WebhookAttempt, $this> the newest first */
    public function attempts(): HasMany
    {
        return $this->hasMany(WebhookAttempt::class)->orderByDesc('id');
    }
}
