<?php

declare(strict_types=1);

namespace App\Http\Requests\Match;

use Illuminate\Foundation\Http\FormRequest;

/** The draft that was changed, what was made of it, and how clashes are settled that were seen before. */
final class JoinDraftRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'base' => ['required', 'array'],
            'mine' => ['required', 'array'],
            'settled' => ['sometimes', 'array:mine,theirs'],
            'settled.*' => ['array', 'max:1000'],
            'settled.*.*' => ['string', 'max:1000'],
        ];
    }

    /** @return array<string, mixed> */
    public function base(): array
    {
        return $this->document('base');
    }

    /** @return array<string, mixed> */
    public function mine(): array
    {
        return $this->document('mine');
    }

    /**
     * @param  'mine'|'theirs'  $by
     * @return list<string> pointers
     */
    public function settled(string $by): array
    {
        return array_values(array_filter((array) $this->input("settled.{$by}", []), is_string(...)));
    }

    /** @return array<string, mixed> byte for byte as it was sent */
    private function document(string $which): array
    {
        $sent = json_decode($this->getContent(), true, 64);

        return SaveDraftRequest::parts(is_array($sent) ? $sent[$which] ?? null : null);
    }
}
