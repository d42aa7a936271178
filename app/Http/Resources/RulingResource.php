<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Ruling;
use App\Models\RulingScope;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Ruling $resource */
final class RulingResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $act = $this->resource;

        return [
            'id' => $act->id,
            'scope' => $act->scope->value,
            'target' => match ($act->scope->value) {
                'pattern' => (string) $act->pattern_number,
                'class' => (string) $act->row_class,
                'undo' => (string) $act->undoes_id,
                'selection', 'filter' => '',
                default => (string) $act->sequence,
            },
            'filter' => $act->scope === RulingScope::Filter ? (object) ($act->filter ?? []) : null,
            'decision' => $act->decision?->value,
            'reason' => $act->reason,
            'ticket' => $act->ticket,
            'asked' => $act->asked?->name,
            'holdsUpTo' => $act->holds_up_to,
            'holdsFor' => $act->holds_for,
            'findings' => $act->findings,
            'person' => $act->user->name,
            'at' => $act->created_at->toIso8601ZuluString(),
        ];
    }
}
