<?php

declare(strict_types=1);

namespace App\Http\Requests\Match;

use Illuminate\Foundation\Http\FormRequest;

/** The draft is held against the published schema of plans, which says more than rules of a form could. */
final class SaveDraftRequest extends FormRequest
{
    private const PARTS = ['key', 'columnPairs', 'leftOut', 'sides', 'bridges', 'demands', 'defaults', 'sensitive'];

    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'key' => ['present', 'array', 'max:20'],
            'columnPairs' => ['present', 'array', 'max:5000'],
            'leftOut' => ['required', 'array'],
            'sides' => ['array'],
            'bridges' => ['array', 'max:100000'],
            'demands' => ['array', 'max:16384'],
            'defaults' => ['array'],
            'sensitive' => ['array:source,target'],
            'sensitive.*' => ['array', 'max:16384'],
        ];
    }

    /** @return array<string, mixed> byte for byte as it was sent: a blank token may be a space, and spaces are not trimmed here */
    public function document(): array
    {
        $sent = json_decode($this->getContent(), true, 64);

        return is_array($sent) ? array_intersect_key($sent, array_flip(self::PARTS)) : [];
    }
}
